import { smoothStep } from '../plane/smooth-step';

/** Coverage of a tone by a key: full from low to high, with a shoulder outside each end. */
export function toneCoverage(tone: number, low: number, high: number, soft: number): number {
  return smoothStep(low - soft, low, tone) * (1 - smoothStep(high, high + soft, tone));
}

/** Coverage of a colour by its distance from the key's. */
export function nearCoverage(distance: number, reach: number, soft: number): number {
  return 1 - smoothStep(reach, reach + soft, distance);
}
