import { HAZE, perHazeLength } from './haze-length';
import type { Relief } from './relief-planes';
import type { ReliefRow } from './relief-row';

/** How long the way through haze is at the pixels of a row. */
export function throughHaze(
  { distance, reach }: Relief,
  { first, width, aside, ahead, rise, land }: ReliefRow,
): void {
  for (let x = 0; x < width; x++) {
    const i = first + x;
    const ray = Math.sqrt(aside[x] * aside[x] + ahead[x] * ahead[x] + rise[x] * rise[x]);
    const perSky = perHazeLength(rise[x] / ray);
    distance[i] = 1 / (land[x] / (reach[i] * ray) + (1 - land[x]) * perSky);
  }
}

/** The same where a skyline says what is land: haze before the sky behind it is told apart. */
export function throughHazeToLand(
  out: Relief,
  { first, width, aside, ahead, rise }: ReliefRow,
  skyline: Float32Array,
): void {
  for (let x = 0, i = first; x < width; x++, i++) {
    const land = skyline[i];
    out.land[i] = land;
    out.distance[i] = 0;
    if (land === 0) continue;
    const ray = Math.sqrt(aside[x] * aside[x] + ahead[x] * ahead[x] + rise[x] * rise[x]);
    out.distance[i] = land * Math.min(HAZE.farthest, out.reach[i] * ray);
  }
}
