import type { Camera } from '../geometry/camera';
import type { Region } from '../plane/region';
import { createReliefRow, sightRow } from './relief-row';
import type { Relief } from './relief-planes';

/** Height of the top of the haze over the eye, and the farthest way through it, metres. */
const HAZE = { top: 120, farthest: 4000 } as const;

/** One over the way through haze toward the sky, per metre. @param rise of the ray's unit vector */
export const perHazeLength = (rise: number): number => Math.max(1 / HAZE.farthest, rise / HAZE.top);

/** How long the way through haze is toward the sky, metres. @param rise of the ray's unit vector */
export const hazeLength = (rise: number): number => 1 / perHazeLength(rise);

/**
 * Sets the way through haze of a region to that of its land alone, by its coverage: before a sky of its own haze is told apart.
 *
 * @param land coverage by land, which becomes the relief's
 */
export function hazeOnLand(out: Relief, land: Float32Array, camera: Camera, region: Region): void {
  const row = createReliefRow(region.width);
  for (let y = 0, i = 0; y < region.height; y++) {
    sightRow(row, camera, region, y);
    for (let x = 0; x < region.width; x++, i++) {
      const ray = Math.hypot(row.aside[x], row.ahead[x], row.rise[x]);
      out.land[i] = land[i];
      out.distance[i] = land[i] === 0 ? 0 : land[i] * Math.min(HAZE.farthest, out.reach[i] * ray);
    }
  }
}
