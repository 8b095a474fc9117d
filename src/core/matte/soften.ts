import { cutBox, pasteBox, type Box } from '../plane/box';
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

/** Side of a square that is softened at once, pixels. */
const TILE = 256;

/**
 * The same on a part of a region: square after square, and only where the coverage changes, for what is even stays so.
 *
 * @param out the part's softened coverage
 * @param coverage of the region `from`, which holds the part with a margin of `edgeMargin(work)`
 */
export function softenPart(
  out: Float32Array,
  part: Region,
  coverage: Float32Array,
  from: Region,
  work: EdgeWork,
): void {
  if (work.grow === 0 && Math.round(work.feather) < 1) {
    pasteBox(out, part.width, boxWithin(part, part), cutBox(coverage, from.width, boxWithin(part, from)));
    return;
  }
  const margin = edgeMargin(work);
  for (let y = 0; y < part.height; y += TILE) {
    for (let x = 0; x < part.width; x += TILE) {
      const [width, height] = [Math.min(TILE, part.width - x), Math.min(TILE, part.height - y)];
      const tile = { ...part, left: part.left + x, top: part.top + y, width, height };
      const area = withMargin(tile, margin);
      const around = boxWithin(area, from);
      const inner = boxWithin(tile, part);
      if (isEven(coverage, from.width, around)) {
        fillBox(out, part.width, inner, coverage[around.top * from.width + around.left]);
        continue;
      }
      const own = cutBox(coverage, from.width, around);
      soften(own, area, work);
      pasteBox(out, part.width, inner, cutBox(own, area.width, boxWithin(tile, area)));
    }
  }
}

/** Whether a plane holds one value all over a box. */
function isEven(data: Float32Array, width: number, { left, top, right, bottom }: Box): boolean {
  const value = data[top * width + left];
  for (let y = top; y < bottom; y++)
    for (let i = y * width + left; i < y * width + right; i++) if (data[i] !== value) return false;
  return true;
}

function fillBox(out: Float32Array, width: number, { left, top, right, bottom }: Box, value: number): void {
  for (let y = top; y < bottom; y++) out.fill(value, y * width + left, y * width + right);
}

/** Where a region lies in the buffers of a larger one. */
const boxWithin = ({ left, top, width, height }: Region, from: Region): Box => ({
  left: left - from.left,
  top: top - from.top,
  right: left - from.left + width,
  bottom: top - from.top + height,
});
