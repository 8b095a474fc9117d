import type { Relief } from './relief';

/** Over this a surface counts as level, cosine between its normal and the vertical. */
const LEVEL = 0.5;

/**
 * Bends a normal of a relief by a fold of the plate's fine shading. On what is level, up in the picture is away from the eye, under a
 * ceiling toward it; on what is upright it is up.
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
  let [x, y, z] = [normalX[i], normalY[i], normalZ[i]];
  if (Math.abs(z) > LEVEL) {
    x += right;
    y += Math.sign(z) * up;
  } else {
    [x, y, z] = [x - right * y, y + right * x, z + up];
  }
  const long = Math.sqrt(x * x + y * y + z * z);
  normalX[i] = x / long;
  normalY[i] = y / long;
  normalZ[i] = z / long;
}
