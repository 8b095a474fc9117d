import type { Plane } from './plane';
import type { Region } from './region';

/**
 * One row of a region, read from a plane that covers the whole picture at another scale, with bilinear weights and
 * held edges. `out` has region.width floats; `row` counts from the region's top.
 */
export function bilinearRow(out: Float32Array, source: Plane, region: Region, row: number): void {
  const { width, height, data } = source;
  const v = ((region.top + row + 0.5) / region.fullHeight) * height - 0.5;
  const y0 = Math.min(height - 1, Math.max(0, Math.floor(v)));
  const y1 = Math.min(height - 1, y0 + 1);
  const fy = Math.min(1, Math.max(0, v - y0));
  const step = width / region.fullWidth;
  let u = (region.left + 0.5) * step - 0.5;
  for (let x = 0; x < region.width; x++, u += step) {
    const x0 = Math.min(width - 1, Math.max(0, Math.floor(u)));
    const x1 = Math.min(width - 1, x0 + 1);
    const fx = Math.min(1, Math.max(0, u - x0));
    const top = data[y0 * width + x0] + fx * (data[y0 * width + x1] - data[y0 * width + x0]);
    const bottom = data[y1 * width + x0] + fx * (data[y1 * width + x1] - data[y1 * width + x0]);
    out[x] = top + fy * (bottom - top);
  }
}
