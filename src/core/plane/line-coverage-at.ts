import { STEEP_FROM, STEEP_TO, steepen } from './steepen';

/**
 * Coverage at a place by a guided line of the cube root of its luminance, steepened, 0 to 1. Where the line says the same of every
 * luminance from 0 to 1, as it does away from edges, the root is not drawn.
 */
export function lineCoverageAt(slope: number, offset: number, luminance: number): number {
  const brightest = offset + slope;
  if (offset <= STEEP_FROM && brightest <= STEEP_FROM) return 0;
  if (offset >= STEEP_TO && brightest >= STEEP_TO) return 1;
  return steepen(slope * Math.cbrt(luminance) + offset);
}
