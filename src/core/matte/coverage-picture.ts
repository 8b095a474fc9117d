import type { PlatePoint } from '../geometry/camera';

/** What a matte covers on a copy of the plate, 0 to 255. */
export interface CoveragePicture {
  width: number;
  height: number;
  data: Uint8Array;
}

/** How much of the picture a matte covers, 0 to 1. */
export const coveredShare = ({ data }: CoveragePicture): number =>
  data.reduce((sum, value) => sum + value, 0) / (255 * data.length);

/** The middle of what a coverage covers; undefined where it covers nothing. */
export function middleOfCoverage({ width, height, data }: CoveragePicture): PlatePoint | undefined {
  let [sum, x, y] = [0, 0, 0];
  for (let i = 0; i < data.length; i++) {
    sum += data[i];
    x += data[i] * (i % width);
    y += data[i] * Math.floor(i / width);
  }
  return sum > 0 ? { u: (x / sum + 0.5) / width, v: (y / sum + 0.5) / height } : undefined;
}
