import { createBoxBlur } from '../plane/box-blur';
import { dilate } from '../plane/dilate';
import type { Region } from '../plane/region';

/** What is done to a matte's edge, in pixels: grown (or, below 0, shrunk) by a radius, then blurred over one. */
export interface EdgeWork {
  grow: number;
  feather: number;
}

/** Pixels around a place that its softened coverage depends on. */
export const edgeMargin = ({ grow, feather }: EdgeWork): number =>
  Math.ceil(Math.abs(grow)) + 3 * Math.round(feather) + 1;

/** A region with a margin on every side, as far as the picture reaches. */
export function withMargin(region: Region, margin: number): Region {
  const { fullWidth, fullHeight } = region;
  const left = Math.max(0, region.left - margin);
  const top = Math.max(0, region.top - margin);
  const right = Math.min(fullWidth, region.left + region.width + margin);
  const bottom = Math.min(fullHeight, region.top + region.height + margin);
  return { ...region, left, top, width: right - left, height: bottom - top };
}

/**
 * Grows or shrinks a coverage and softens its edge by three boxes, which come near a Gaussian. In place; `region` says
 * which part of the picture it covers.
 */
export function soften(coverage: Float32Array, { width, height }: Region, { grow, feather }: EdgeWork): void {
  if (grow !== 0) {
    const invert = () => {
      if (grow < 0) for (let i = 0; i < coverage.length; i++) coverage[i] = 1 - coverage[i];
    };
    invert();
    dilate(coverage, width, height, Math.abs(grow));
    invert();
  }
  const radius = Math.round(feather);
  if (radius < 1) return;
  const blur = createBoxBlur(width, height, radius);
  for (let k = 0; k < 3; k++) blur(coverage, coverage);
}
