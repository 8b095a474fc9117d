import { createBoxBlur } from '../plane/box-blur';
import { geodesicReach } from '../plane/geodesic-reach';
import { edgeHeight } from './edge-height';
import type { PlateFeatures } from './plate-features';
import type { WallColumn } from './told-walls';

/**
 * Costs of belonging to a foot. Edges count as for the ground; going sideways costs more than going up. Near feet start
 * with a handicap: what is seen behind a post belongs to what lies beside it, not to the post.
 */
const STANDING = { step: 0.0004, turn: 0.001, handicap: 1 } as const;

/** What is seen over a wall is taken to stand so many times as far off as the wall: a roof, a hedge, the next house. */
const BEHIND_WALL = 1.3;

/** Rows by which a thing before a wall stands lower than the wall. */
const BEFORE_ROWS = 2;

/** What a person said of where things stand. */
interface ToldPlaces {
  /** Where drawn walls stand. */
  walls: readonly WallColumn[];
  /** What is far, if anything is, and where the horizon lies there, fraction of the height. */
  far?: { is: Uint8Array; horizon: (u: number) => number };
}

/**
 * For every pixel that stands, the row of the ground on which it stands, as a fraction of the height. Feet are where
 * standing pixels meet the ground below them; each pixel belongs to the foot from which it is reached across the smaller
 * edges, so that a house seen over somebody's hat keeps its own distance. Where no foot is in view the plate's lower
 * edge counts. Ground and sky are their own foot, and what is far stands at the horizon.
 * What is seen over a drawn wall may stand behind it: it is reached from the wall's top too, without a handicap. So a hedge there is
 * not taken for what it runs on to at the end of the lane.
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
  const step = (from: number, to: number, dx: number) =>
    STANDING.step + edge(from, to) + (dx === 0 ? 0 : STANDING.turn);
  geodesicReach(cost, barred, width, height, step, feet);
  for (const { x, level, foot, top } of walls) {
    const over = Math.min(height, Math.round(top * height)) - 1;
    const i = over * width + x;
    if (over < 0 || barred[i] || feet[i] > foot + BEFORE_ROWS / height) continue;
    const own = STANDING.handicap * level;
    if (cost[i] > own) [cost[i], feet[i]] = [own, level + (foot - level) / BEHIND_WALL];
  }
  if (walls.length > 0) geodesicReach(cost, barred, width, height, step, feet);
  const smooth = new Float32Array(size);
  createBoxBlur(width, height, 1)(smooth, feet);
  return smooth;
}
