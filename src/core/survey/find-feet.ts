import { createBoxBlur } from '../plane/box-blur';
import { geodesicReach } from '../plane/geodesic-reach';
import { edgeHeight } from './edge-height';
import type { PlateFeatures } from './plate-features';

/**
 * Costs of belonging to a foot. Edges count as for the ground; going sideways costs more than going up. Near feet start
 * with a handicap: what is seen behind a post belongs to what lies beside it, not to the post. Over a drawn wall going sideways is dear: what
 * is seen over it stands behind it, though it runs on to the end of the lane.
 */
const STANDING = { step: 0.0004, turn: 0.001, turnOverWall: 0.03, handicap: 1 } as const;

/** What a person said of where things stand. */
interface ToldPlaces {
  /** In each column where the foot of the nearest drawn wall lies, fraction of the height; 0 where none stands. */
  walls: Float32Array;
  /** What is far, if anything is, and where the horizon lies there, fraction of the height. */
  far?: { is: Uint8Array; horizon: (u: number) => number };
}

/**
 * For every pixel that stands, the row of the ground on which it stands, as a fraction of the height. Feet are where
 * standing pixels meet the ground below them; each pixel belongs to the foot from which it is reached across the smaller
 * edges, so that a house seen over somebody's hat keeps its own distance. Where no foot is in view the plate's lower
 * edge counts. Ground and sky are their own foot, and what is far stands at the horizon.
 */
export function findFeet(
  features: PlateFeatures,
  ground: Uint8Array,
  sky: Uint8Array,
  { walls, far }: ToldPlaces,
): Float32Array {
  const { width, height } = features;
  const size = width * height;
  const feet = new Float32Array(size);
  const cost = new Float32Array(size).fill(Infinity);
  const barred = new Uint8Array(size);
  for (let i = 0; i < size; i++) {
    const row = Math.floor(i / width);
    const isFar = far !== undefined && far.is[i] > 0;
    barred[i] = isFar ? 1 : ground[i] | sky[i];
    feet[i] = isFar ? far.horizon(((i % width) + 0.5) / width) : barred[i] ? (row + 0.5) / height : 1;
    if (barred[i]) continue;
    const below = row + 1 < height ? i + width : undefined;
    if (below !== undefined && !ground[below]) continue;
    feet[i] = (row + 1) / height;
    cost[i] = STANDING.handicap * feet[i];
  }
  const edge = edgeHeight(features);
  const overWall = (i: number) => i / width < walls[i % width] * height;
  const turn = (to: number) => (overWall(to) ? STANDING.turnOverWall : STANDING.turn);
  const step = (from: number, to: number, dx: number) =>
    STANDING.step + edge(from, to) + (dx === 0 ? 0 : turn(to));
  geodesicReach(cost, barred, width, height, step, feet);
  const smooth = new Float32Array(size);
  createBoxBlur(width, height, 1)(smooth, feet);
  return smooth;
}
