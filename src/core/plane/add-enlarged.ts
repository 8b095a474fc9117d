import { bilinearRow } from './bilinear-row';
import type { Plane } from './plane';
import type { Region } from './region';

/**
 * Adds a small copy of the whole picture to a region, each pixel of it `by` times.
 *
 * @param out width * height of the region
 * @param by as many
 */
export function addEnlarged(out: Float32Array, small: Plane, by: Float32Array, region: Region): void {
  const { width, height } = region;
  const row = new Float32Array(width);
  for (let y = 0, i = 0; y < height; y++) {
    bilinearRow(row, small, region, y);
    for (let x = 0; x < width; x++, i++) out[i] += by[i] * row[x];
  }
}
