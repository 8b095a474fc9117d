import type { Region } from '../plane/region';
import type { Camera } from '../geometry/camera';

/** A row of a relief in the making: what is known of its pixels beside the relief's own planes. */
export interface ReliefRow {
  /** The relief's index of its leftmost pixel. */
  first: number;
  width: number;
  /** Height of its middle, fraction of the plate's height. */
  v: number;
  /** View rays at the pixels' middles: to the right, ahead and up. */
  aside: Float64Array;
  ahead: Float64Array;
  rise: Float64Array;
  /** Coverage by ground, and by land, as the survey found it. */
  ground: Float64Array;
  land: Float64Array;
  /** What stands there by the survey: how far ahead, and the ray that sees its foot, upward. */
  standsAt: Float64Array;
  footRise: Float64Array;
  /** Folds by the plate's fine shading, where any surface is rippled. */
  foldRight: Float32Array;
  foldUp: Float32Array;
  /** Walls: how far along the ray the nearest is met, and the nearest under whose foot it passes; which is met, and whether a foot is its own. */
  met: Float64Array;
  under: Float64Array;
  wall: Int32Array;
  claimed: Uint8Array;
  /** Another row of numbers. */
  scratch: () => Float32Array;
}

export function createReliefRow(width: number): ReliefRow {
  const exact = () => new Float64Array(width);
  const scratch = () => new Float32Array(width);
  return {
    ...{ first: 0, width, v: 0, scratch },
    ...{ aside: exact(), ahead: exact(), rise: exact() },
    ...{ ground: exact(), land: exact(), standsAt: exact(), footRise: exact() },
    ...{ foldRight: scratch(), foldUp: scratch() },
    ...{ met: exact(), under: exact(), wall: new Int32Array(width), claimed: new Uint8Array(width) },
  };
}

/** Sets a row to the view rays of one row of a region. */
export function sightRow(row: ReliefRow, { corner, across, down }: Camera, region: Region, y: number): void {
  row.first = y * region.width;
  row.v = (region.top + y + 0.5) / region.fullHeight;
  const { v, width, aside, ahead, rise } = row;
  for (let x = 0; x < width; x++) {
    const u = (region.left + x + 0.5) / region.fullWidth;
    aside[x] = corner[0] + u * across[0] + v * down[0];
    ahead[x] = Math.max(corner[1] + u * across[1] + v * down[1], 1e-6);
    rise[x] = corner[2] + u * across[2] + v * down[2];
  }
}
