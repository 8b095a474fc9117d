/** A smooth step from 0 at `from` to 1 at `to`. */
export function smoothStep(from: number, to: number, value: number): number {
  const t = Math.min(1, Math.max(0, (value - from) / Math.max(1e-6, to - from)));
  return t * t * (3 - 2 * t);
}
