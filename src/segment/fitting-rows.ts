import type { Fit } from '@/core/fixture/twin-fit';

/** Rows in which something can be, so many times as large, pixels. */
export function fittingRows(fits: Fit, times: number, height: number): { from: number; to: number } {
  const steps = { rows: 160, columns: 12 };
  let [from, to] = [Infinity, -Infinity];
  for (let row = 0; row <= steps.rows; row++) {
    for (let column = 0; column <= steps.columns; column++) {
      if (!fits({ u: column / steps.columns, v: row / steps.rows }, times)) continue;
      from = Math.min(from, row - 1);
      to = Math.max(to, row + 1);
      break;
    }
  }
  return { from: (from / steps.rows) * height, to: (to / steps.rows) * height };
}
