import type { Relief } from './relief-planes';
import type { ReliefRow } from './relief-row';

/** Steeper than this leaves hang, flatter they are a lawn: cosine between the normal and the vertical. */
const LEVEL = 0.7;

/** What is left of a normal among leaves: they look all ways, toward the eye a little more often. */
const TOWARD_EYE = 0.1;

/**
 * Takes the normal from what leaves cover, whatever it was taken for: they look all ways, and what falls on their other side shines through.
 * So a hedge over a wall takes light that grazes the wall, and a tree before a lamp is lit as one behind it. Where nothing is left of a
 * normal, the mean over all turns is the same from everywhere around.
 *
 * @param leaves coverage by leaves, one number a pixel of the row
 */
export function rasterizeLeaves(out: Relief, row: ReliefRow, leaves: Float32Array): void {
  const { first, width, aside, ahead } = row;
  for (let x = 0, i = first; x < width; x++, i++) {
    const share = leaves[x];
    if (share === 0 || Math.abs(out.normalZ[i]) > LEVEL) continue;
    const perLevel = (TOWARD_EYE * share) / Math.sqrt(aside[x] * aside[x] + ahead[x] * ahead[x]);
    out.normalX[i] = (1 - share) * out.normalX[i] - perLevel * aside[x];
    out.normalY[i] = (1 - share) * out.normalY[i] - perLevel * ahead[x];
    out.normalZ[i] *= 1 - share;
    out.unknownFacing[i] = Math.max(out.unknownFacing[i], share);
  }
}
