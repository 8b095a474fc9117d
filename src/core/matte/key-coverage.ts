/** A smooth step from 0 at `from` to 1 at `to`. */
export function smoothStep(from: number, to: number, value: number): number {
  const t = Math.min(1, Math.max(0, (value - from) / Math.max(1e-6, to - from)));
  return t * t * (3 - 2 * t);
}

/** Coverage of a tone by a key: full from low to high, with a shoulder outside each end. */
export function toneCoverage(tone: number, low: number, high: number, soft: number): number {
  return smoothStep(low - soft, low, tone) * (1 - smoothStep(high, high + soft, tone));
}

/** Coverage of a colour by its distance from the key's. */
export function nearCoverage(distance: number, reach: number, soft: number): number {
  return 1 - smoothStep(reach, reach + soft, distance);
}
