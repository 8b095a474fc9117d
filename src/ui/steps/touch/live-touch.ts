import { createDisplayCodes } from '@/core/film/display-codes';
import { dabBox, followStroke, layDabs } from '@/core/matte/paint-coverage';
import type { PaintStroke } from '@/core/matte/pass';
import type { Touch } from '@/core/scene/schema';
import { touchedCodes } from '@/core/touch/touched-light';
import type { TouchGroundPicture } from '@/engine/readouts/touch-ground';
import { layOver } from '../../picture/picture-painter';

/**
 * A stroke of light on its way. What it has touched is computed by the same functions that make the picture, and laid over the night;
 * only the pixels under the newest dabs are made anew.
 */
export function createLiveTouch(
  canvas: HTMLCanvasElement,
  ground: TouchGroundPicture,
  { does, amount }: Pick<Touch, 'does' | 'amount'>,
  brush: Omit<PaintStroke, 'path'>,
) {
  const { region } = ground;
  const { width, height } = region;
  [canvas.width, canvas.height] = [width, height];
  layOver(canvas, region);
  const context = canvas.getContext('2d')!;
  const codes = createDisplayCodes(255);
  const covered = new Float32Array(width * height);
  const follow = followStroke(brush, region.fullWidth / region.fullHeight);
  const laid = { does, stops: amount, strength: brush.strength, erase: brush.erase };

  return {
    /** Draws what is new of the path. */
    draw(path: readonly number[]): void {
      const fresh = follow(path);
      const box = dabBox(fresh, region);
      if (!box) return;
      layDabs(covered, fresh, brush.soft, region);
      const part = new ImageData(touchedCodes(ground, covered, laid, box, codes), box.right - box.left);
      context.putImageData(part, box.left, box.top);
    },
    clear(): void {
      context.clearRect(0, 0, width, height);
    },
  };
}
