import { LUMINANCE } from '../color/luminance';
import { createGuidedFilter, type GuidedLine } from '../plane/guided-filter';
import type { RgbPlanes } from '../plane/plane';

/** Window of the edge and variance of the guide that counts as flat, as in the survey. */
const REFINE = { radius: 0.008, epsilon: 0.0015 } as const;

/**
 * A coverage of a small copy of the plate as local lines of the cube root of luminance (guided filter, He, Sun and Tang
 * 2013), so that its edges follow a plate of any size.
 */
export function followEdges({ width, height, r, g, b }: RgbPlanes, coverage: Float32Array): GuidedLine {
  const guide = Float32Array.from(r, (red, i) =>
    Math.cbrt(LUMINANCE[0] * red + LUMINANCE[1] * g[i] + LUMINANCE[2] * b[i]),
  );
  const radius = Math.max(1, Math.round(REFINE.radius * width));
  return createGuidedFilter(guide, width, height, radius, REFINE.epsilon)(coverage);
}
