import type { Plane } from './plane';
import type { Region } from './region';

/**
 * One row of a region, read from a plane that covers the whole picture at another scale, with bilinear weights and
 * clamped edges; at its own scale the row as it is. `out` has region.width floats; `row` counts from the region's top.
 */
export function bilinearRow(out: Float32Array, source: Plane, region: Region, row: number): void {
  const { width, height, data } = source;
  if (region.fullWidth === width && region.fullHeight === height) {
    const first = (region.top + row) * width + region.left;
    out.set(data.subarray(first, first + region.width));
    return;
  }
  const v = ((region.top + row + 0.5) / region.fullHeight) * height - 0.5;
  const y0 = Math.min(height - 1, Math.max(0, Math.floor(v)));
  const y1 = Math.min(height - 1, y0 + 1);
  const fy = Math.min(1, Math.max(0, v - y0));
  const step = width / region.fullWidth;
  const start = (region.left + 0.5) * step - 0.5;
  const top = y0 * width;
  const bottom = y1 * width;
  const last = width - 1;
  let column = Math.min(last, Math.max(0, Math.floor(start)));
  let from = data[top + column] + fy * (data[bottom + column] - data[top + column]);
  let x = Math.min(region.width, Math.max(0, Math.ceil(-start / step)));
  out.fill(from, 0, x);
  // Pixels between the same two columns lie on a line.
  for (; x < region.width && column < last; column++) {
    const right = column + 1;
    const to = data[top + right] + fy * (data[bottom + right] - data[top + right]);
    const end = Math.min(region.width, Math.ceil((right - start) / step));
    const slope = (to - from) * step;
    let value = from + (start + x * step - column) * (to - from);
    for (; x < end; x++, value += slope) out[x] = value;
    from = to;
  }
  out.fill(from, x);
}
