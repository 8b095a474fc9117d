import type { PlatePoint } from './camera';
import type { Region } from '../plane/region';

/** Lines within a pixel row on which an outline is looked at. */
const LINES = 4;

/**
 * Coverage of one row of a region by what an outline encloses (even-odd rule, so that a line that crosses itself leaves
 * holes). Exact across a pixel, sampled down it. Fewer than three points enclose nothing.
 */
export function outlineRow(
  out: Float32Array,
  points: readonly PlatePoint[],
  region: Region,
  row: number,
): void {
  const { fullWidth, fullHeight, left, top, width } = region;
  out.fill(0);
  if (points.length < 3) return;
  for (let line = 0; line < LINES; line++) {
    const y = top + row + (line + 0.5) / LINES;
    const crossings: number[] = [];
    points.forEach((a, i) => {
      const b = points[(i + 1) % points.length];
      const [ya, yb] = [a.v * fullHeight, b.v * fullHeight];
      if (ya <= y === yb <= y) return;
      crossings.push(a.u * fullWidth + ((y - ya) / (yb - ya)) * (b.u - a.u) * fullWidth - left);
    });
    crossings.sort((p, q) => p - q);
    for (let k = 0; k + 1 < crossings.length; k += 2) {
      const from = Math.max(0, crossings[k]);
      const to = Math.min(width, crossings[k + 1]);
      for (let x = Math.floor(from); x < to; x++) {
        out[x] += (Math.min(to, x + 1) - Math.max(from, x)) / LINES;
      }
    }
  }
}
