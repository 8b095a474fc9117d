import { LUMINANCE } from '../color/luminance';
import type { Rgb } from '../color/rgb';

/**
 * Weights of linear sRGB in what rods see, adding up to 1: `-0.702 X + 1.039 Y + 0.433 Z` (Pattanaik, Tumblin, Yee and
 * Greenberg 2000) carried into sRGB primaries. Red counts for less than nothing.
 */
export const SCOTOPIC: Rgb = [-0.0714, 0.6447, 0.4267];

/** Weights of the grey toward which colours fade: luminance by cones, or what rods see, or between the two. */
export function fadedGrey(rods: number): Rgb {
  const weight = (i: 0 | 1 | 2) => LUMINANCE[i] + rods * (SCOTOPIC[i] - LUMINANCE[i]);
  return [weight(0), weight(1), weight(2)];
}
