import { createBoxBlur } from '../plane/box-blur';
import type { Cutout } from './lay-placed';

/** So many running means one after the other are nearly a Gaussian. */
const TIMES = 3;

/**
 * Blurs a cutout in place, its light by how far it is there.
 *
 * @param sigma of the blur, pixels; below a third of one nothing changes
 */
export function blurCutout({ width, height, r, g, b, coverage }: Cutout, sigma: number): void {
  // The variance of a running mean over 2 n + 1 pixels is n (n + 1) / 3.
  const radius = Math.round((Math.sqrt(1 + (12 * sigma * sigma) / TIMES) - 1) / 2);
  if (radius < 1) return;
  const blur = createBoxBlur(width, height, radius);
  for (const plane of [r, g, b]) for (let i = 0; i < plane.length; i++) plane[i] *= coverage[i];
  for (const plane of [r, g, b, coverage]) for (let k = 0; k < TIMES; k++) blur(plane, plane);
  for (const plane of [r, g, b]) {
    for (let i = 0; i < plane.length; i++) plane[i] = coverage[i] > 1e-6 ? plane[i] / coverage[i] : 0;
  }
}
