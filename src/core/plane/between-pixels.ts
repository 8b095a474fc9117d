import { clamp } from './clamp';
import type { Plane } from './plane';

/** A plane's value between its pixels, bilinear; places outside repeat its edge. In pixels. */
export function betweenPixels({ width, height, data }: Plane, x: number, y: number): number {
  const left = clamp(Math.floor(x), 0, Math.max(0, width - 2));
  const top = clamp(Math.floor(y), 0, Math.max(0, height - 2));
  const [right, down] = [width > 1 ? 1 : 0, height > 1 ? width : 0];
  const [s, t] = [clamp(x - left, 0, 1), clamp(y - top, 0, 1)];
  const i = top * width + left;
  const above = data[i] + s * (data[i + right] - data[i]);
  const below = data[i + down] + s * (data[i + down + right] - data[i + down]);
  return above + t * (below - above);
}
