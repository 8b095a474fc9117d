import type { GlossFrame } from '../plan/gloss-frame';
import type { Relief } from './relief-planes';

/** Least square of the cosine between the normal of a whole form and that of a place of it: at its rim it bulges no further. */
const LEAST = 0.04;

/** Sets a normal to that of a form, tilted to its right and up by components of a unit vector. */
export function tiltNormal(
  { normalX, normalY, normalZ }: Pick<Relief, 'normalX' | 'normalY' | 'normalZ'>,
  i: number,
  { normal, right, up }: GlossFrame,
  aside: number,
  rise: number,
): void {
  const tilt = aside * aside + rise * rise;
  const straight = Math.sqrt(Math.max(LEAST, 1 - tilt));
  const long = Math.sqrt(tilt + straight * straight);
  normalX[i] = (straight * normal[0] + aside * right[0] + rise * up[0]) / long;
  normalY[i] = (straight * normal[1] + aside * right[1] + rise * up[1]) / long;
  normalZ[i] = (straight * normal[2] + aside * right[2] + rise * up[2]) / long;
}
