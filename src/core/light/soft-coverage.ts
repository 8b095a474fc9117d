import { createBoxBlur } from '../plane/box-blur';
import type { Plane } from '../plane/plane';

/** Half widths, pixels of the small copy, to which a standee's coverage is blurred once; level 0 is sharp. */
export const SOFT_RADII = [1, 2, 4, 8, 16] as const;

/** Levels of a prefiltered coverage: the sharp one and each blurred one. */
export const SOFT_LEVELS = SOFT_RADII.length + 1;

/**
 * Prefilters a coverage for shadows whose penumbra is wide: its levels, one plane after the other.
 *
 * @param out SOFT_LEVELS planes of the coverage's size
 */
export function softenCoverage(out: Float32Array, { width, height, data }: Plane): void {
  const count = width * height;
  out.set(data, 0);
  SOFT_RADII.forEach((radius, k) => {
    createBoxBlur(width, height, radius)(out.subarray((k + 1) * count, (k + 2) * count), data);
  });
}

/** The level, with a fraction, whose blur is as wide as a penumbra with a half width in pixels. */
export function softLevel(halfWidth: number): number {
  return Math.min(SOFT_LEVELS - 1, halfWidth < 1 ? Math.max(0, halfWidth) : Math.log2(halfWidth) + 1);
}
