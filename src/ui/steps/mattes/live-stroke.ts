import { dabBox, followStroke, layDabs } from '@/core/matte/paint-coverage';
import type { PaintStroke } from '@/core/matte/pass';
import { wholeRegion } from '@/core/plane/region';

/** Widest plane that a stroke is drawn on while it is painted, pixels. */
const MOST_WIDTH = 1600;

const PAINT = [224, 82, 111];
const ERASE = [214, 214, 214];
const STRENGTH = 0.55;

/** A stroke on its way, drawn on a canvas over the picture by the same dabs that the matte is made of. */
export function createLiveStroke(canvas: HTMLCanvasElement, brush: Omit<PaintStroke, 'path'>) {
  const { clientWidth, clientHeight } = canvas;
  const scale = Math.min(1, MOST_WIDTH / clientWidth);
  const width = (canvas.width = Math.max(1, Math.round(clientWidth * scale)));
  const height = (canvas.height = Math.max(1, Math.round(clientHeight * scale)));
  const region = wholeRegion(width, height);
  const covered = new Float32Array(width * height);
  const context = canvas.getContext('2d')!;
  const color = brush.erase ? ERASE : PAINT;
  const follow = followStroke(brush, width / height);

  return {
    /** Draws what is new of the path. */
    draw(path: readonly number[]): void {
      const fresh = follow(path);
      const box = dabBox(fresh, region);
      if (!box) return;
      const { left, top, right, bottom } = box;
      layDabs(covered, fresh, brush.soft, region);
      const part = new ImageData(right - left, bottom - top);
      for (let y = top, to = 0; y < bottom; y++) {
        for (let x = left; x < right; x++, to += 4) {
          part.data.set(color, to);
          part.data[to + 3] = 255 * STRENGTH * brush.strength * covered[y * width + x];
        }
      }
      context.putImageData(part, left, top);
    },
    clear(): void {
      context.clearRect(0, 0, width, height);
    },
  };
}
