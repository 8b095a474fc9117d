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
  const [top, bottom] = [y0 * width, y1 * width];
  const last = width - 1;
  // Enlarging, many pixels lie between the same two columns: those are made once.
  let [column, from, to] = [-1, 0, 0];
  for (let x = 0; x < region.width; x++, u += step) {
    const held = u < 0 ? 0 : u > last ? last : u;
    const x0 = held | 0;
    if (x0 !== column) {
      column = x0;
      const x1 = x0 < last ? x0 + 1 : last;
      from = data[top + x0] + fy * (data[bottom + x0] - data[top + x0]);
      to = data[top + x1] + fy * (data[bottom + x1] - data[top + x1]);
    }
    out[x] = from + (held - x0) * (to - from);
  }
}
