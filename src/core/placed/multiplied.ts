import type { ClearPicture } from './clear-picture';

/**
 * Half-clear pixels, shares of a whole coverage; fewest of them, and of whole ones, by which it can be told; most of them whose colour is
 * brighter than multiplied ones can be; and codes by which rounding may lift one.
 */
const HALF = { from: 0.15, to: 0.85, fewest: 64, brighter: 0.001, rounding: 1.5 } as const;

/**
 * Whether a picture's colours were multiplied by its coverage, as some programs save them: no half-clear pixel is brighter than its
 * coverage then, and together they are as much darker than whole ones as they are clear. Files do not say so.
 */
export function isMultiplied({ data, full }: ClearPicture): boolean {
  const [from, to] = [HALF.from * full, HALF.to * full];
  const slack = (HALF.rounding * full) / 255;
  const half = { count: 0, light: 0, coverage: 0, brighter: 0 };
  const whole = { count: 0, light: 0 };
  for (let i = 0; i < data.length; i += 4) {
    const alpha = data[i + 3];
    if (alpha < from || (alpha > to && alpha < full)) continue;
    const light = Math.max(data[i], data[i + 1], data[i + 2]);
    if (alpha === full) {
      whole.count++;
      whole.light += light;
      continue;
    }
    half.count++;
    half.light += light;
    half.coverage += alpha / full;
    if (light > alpha + slack) half.brighter++;
  }
  if (Math.min(half.count, whole.count) < HALF.fewest) return false;
  if (half.brighter > HALF.brighter * half.count) return false;
  const darker = half.light / half.count / Math.max(1, whole.light / whole.count);
  return darker < (1 + half.coverage / half.count) / 2;
}

/** Divides a picture's coverage out of its colours, in place. */
export function divideOut({ data, full }: ClearPicture): void {
  for (let i = 0; i < data.length; i += 4) {
    const alpha = data[i + 3];
    if (alpha === 0 || alpha === full) continue;
    for (let c = i; c < i + 3; c++) data[c] = Math.min(full, (data[c] * full) / alpha + 0.5);
  }
}
