import type { Plane } from '../plane/plane';
import { hypot } from '../plane/hypot';

/** How much brighter than the mean under a stroke a spot has to be, and how bright at least, 0 to 1. */
const BRIGHTER = 1.35;
const LEAST = 0.35;

/** A bright place, pixels. */
export interface BrightSpot {
  x: number;
  y: number;
}

/**
 * The brightest places under a stroke, apart from one another, the brightest first.
 *
 * @param light 0 to 1
 * @param under how far each pixel lies under the stroke, 0 or more
 * @param apart least distance between two, pixels
 */
export function brightSpots({ width, data }: Plane, under: Float32Array, apart: number): BrightSpot[] {
  let [sum, count] = [0, 0];
  under.forEach((share, i) => {
    if (share > 0) [sum, count] = [sum + data[i], count + 1];
  });
  if (count === 0) return [];
  const least = Math.max(LEAST, (BRIGHTER * sum) / count);
  const bright = Array.from(under.keys()).filter((i) => under[i] > 0 && data[i] >= least);
  bright.sort((a, b) => data[b] - data[a]);
  const found: BrightSpot[] = [];
  for (const i of bright) {
    const spot = { x: i % width, y: Math.floor(i / width) };
    if (found.every(({ x, y }) => hypot(x - spot.x, y - spot.y) >= apart)) found.push(spot);
  }
  return found;
}
