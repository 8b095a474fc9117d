import { clamp } from './clamp';
import type { Plane } from './plane';

/** A plane's value between its pixels, bilinear; places outside repeat its edge. In pixels; the plane is at least 2 wide and high. */
export function betweenPixels({ width, height, data }: Plane, x: number, y: number): number {
  const left = clamp(Math.floor(x), 0, width - 2);
  const top = clamp(Math.floor(y), 0, height - 2);
  const [s, t] = [clamp(x - left, 0, 1), clamp(y - top, 0, 1)];
  const i = top * width + left;
  const above = data[i] + s * (data[i + 1] - data[i]);
  const below = data[i + width] + s * (data[i + width + 1] - data[i + width]);
  return above + t * (below - above);
}
