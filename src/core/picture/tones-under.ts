import { LUMINANCE } from '../color/luminance';
import { srgb } from '../color/srgb';
import type { RgbPlanes } from '../plane/plane';

/** Bins of a histogram of tones under a light. */
export const TONE_BINS = 64;

/**
 * How much of a light lands on each display tone of the day: TONE_BINS shares that add up to 1, or to 0 without light. Places
 * count by the square root of what they get, so that the bright spot right under a lamp is not all there is to see.
 */
export function tonesUnder({ r, g, b }: RgbPlanes, spill: Float32Array): Float32Array {
  const shares = new Float32Array(TONE_BINS);
  let sum = 0;
  for (let i = 0; i < spill.length; i++) {
    const light = LUMINANCE[0] * r[i] + LUMINANCE[1] * g[i] + LUMINANCE[2] * b[i];
    const tone = srgb.encode(Math.min(1, Math.max(0, light)));
    const weight = Math.sqrt(Math.max(0, spill[i]));
    shares[Math.min(TONE_BINS - 1, Math.floor(tone * TONE_BINS))] += weight;
    sum += weight;
  }
  if (sum > 0) for (let k = 0; k < TONE_BINS; k++) shares[k] /= sum;
  return shares;
}
