import type { Plane } from './plane';
import type { Region } from './region';

/**
 * One row of a region, read from a plane that covers the whole picture at another scale, with bilinear weights and
 * clamped edges. `out` has region.width floats; `row` counts from the region's top.
 */
export function bilinearRow(out: Float32Array, source: Plane, region: Region, row: number): void {
  const { width, height, data } = source;
  const v = ((region.top + row + 0.5) / region.fullHeight) * height - 0.5;
  const y0 = Math.min(height - 1, Math.max(0, Math.floor(v)));
  const y1 = Math.min(height - 1, y0 + 1);
  const fy = Math.min(1, Math.max(0, v - y0));
  const step = width / region.fullWidth;
  const start = (region.left + 0.5) * step - 0.5;
  const [top, bottom] = [y0 * width, y1 * width];
  const at = (column: number) => data[top + column] + fy * (data[bottom + column] - data[top + column]);
  const last = width - 1;
  let x = Math.min(region.width, Math.max(0, Math.ceil(-start / step)));
  out.fill(at(0), 0, x);
  while (x < region.width) {
    const u = start + x * step;
    const column = Math.floor(u);
    if (column >= last) {
      out.fill(at(last), x, region.width);
      break;
    }
    // Pixels between the same two columns lie on a line.
    const from = at(column);
    const rise = at(column + 1) - from;
    const end = Math.min(region.width, Math.max(x + 1, Math.ceil((column + 1 - start) / step)));
    const slope = rise * step;
    let value = from + (u - column) * rise;
    for (; x < end; x++, value += slope) out[x] = value;
  }
}
