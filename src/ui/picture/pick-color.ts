import { unitLuminance } from '@/core/color/luminance';
import { srgb } from '@/core/color/srgb';
import type { PlatePoint } from '@/core/geometry/camera';
import type { PickedColor } from '@/core/fields/fields';

/** Half the side of the sampled square, fraction of the width. */
const REACH = 0.003;

/** The mean colour of a canvas around a place, as light of luminance 1. */
export function pickColor(canvas: HTMLCanvasElement, { u, v }: PlatePoint): PickedColor {
  const reach = Math.max(1, Math.round(REACH * canvas.width));
  const left = Math.min(canvas.width - 1, Math.max(0, Math.round(u * canvas.width) - reach));
  const top = Math.min(canvas.height - 1, Math.max(0, Math.round(v * canvas.height) - reach));
  const side = 2 * reach + 1;
  const { data } = canvas.getContext('2d')!.getImageData(left, top, side, side);
  const sum = [0, 0, 0];
  for (let i = 0; i < data.length; i += 4) {
    for (let c = 0; c < 3; c++) sum[c] += srgb.decode(data[i + c] / 255);
  }
  const [r, g, b] = unitLuminance([sum[0], sum[1], sum[2]]);
  return [r, g, b];
}
