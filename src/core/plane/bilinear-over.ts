import { bilinearRow } from './bilinear-row';
import type { Plane } from './plane';
import type { Region } from './region';

/** Fills a region with a copy of the whole picture at a size of its own, bilinear. `out`: width * height of the region. */
export function bilinearOver(out: Float32Array, plane: Plane, region: Region): void {
  const { width, height } = region;
  for (let y = 0; y < height; y++) bilinearRow(out.subarray(y * width, (y + 1) * width), plane, region, y);
}
