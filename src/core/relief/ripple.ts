import type { Relief } from './relief-planes';

/** Over this a surface counts as level, cosine between its normal and the vertical. */
const LEVEL = 0.5;

/** The steepest ripple, tangent of its angle: an edge in the plate is no cliff. */
export const STEEPEST = 0.35;

/**
 * Bends a normal of a relief by a fold of the plate's fine shading. On what is level, up in the picture is away from the eye, under a
 * ceiling toward it; on what is upright it is up. Steep folds are eased softly under STEEPEST.
 *
 * @param right tilt to the right in the picture, tangent of the angle
 * @param up tilt upward in the picture
 */
export function rippleNormal(
  { normalX, normalY, normalZ }: Pick<Relief, 'normalX' | 'normalY' | 'normalZ'>,
  i: number,
  right: number,
  up: number,
): void {
  const eased = 1 / Math.sqrt(1 + (right * right + up * up) / (STEEPEST * STEEPEST));
  const aside = eased * right;
  const along = eased * up;
  const isLevel = Math.abs(normalZ[i]) > LEVEL;
  const x = normalX[i] + (isLevel ? aside : -aside * normalY[i]);
  const y = normalY[i] + (isLevel ? Math.sign(normalZ[i]) * along : aside * normalX[i]);
  const z = normalZ[i] + (isLevel ? 0 : along);
  const long = Math.sqrt(x * x + y * y + z * z);
  normalX[i] = x / long;
  normalY[i] = y / long;
  normalZ[i] = z / long;
}
