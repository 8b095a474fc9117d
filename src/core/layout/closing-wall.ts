import type { Camera, PlatePoint } from '../geometry/camera';
import { groundPoint, horizonAt } from '../geometry/ground';
import { lineAt } from '../geometry/line-at';
import type { PlateLine } from '../geometry/vanishing-point';
import type { LandCover } from './settle-foot';

/** The far ends of two walls are as far off as one another within this ratio. */
const ALIKE = 1.15;

/** Breadth of what is closed, fraction of the width, at least. */
const BROAD = 0.05;

/** Height over the horizon up to which it is looked whether anything stands there, fraction of the height. */
const OVER = 0.04;

/** Most of that which may be sky, and most of what lies between the wall's foot and the horizon that may be ground: a street goes on there. */
const MOST = { sky: 0.3, ground: 0.25 } as const;

/** The mean of a cover between two lines across it, over some columns. */
function meanBetween(
  { width, height }: Pick<LandCover, 'width' | 'height'>,
  cover: Float32Array,
  [from, to]: PlateLine,
  rows: (u: number) => readonly [top: number, bottom: number],
): number {
  let [sum, count] = [0, 0];
  for (let x = Math.ceil(from.u * width); x < Math.floor(to.u * width); x++) {
    const [top, bottom] = rows((x + 0.5) / width).map((v) => Math.round(v * height));
    for (let y = Math.max(0, top); y < Math.min(height, bottom); y++, count++) sum += cover[y * width + x];
  }
  return count > 0 ? sum / count : 0;
}

/**
 * The foot of a wall that closes the view between two others, from the left one's far end to the right one's: they end equally far off,
 * and between them something stands and no ground goes on. Its own foot may be hidden by what stands before it. Undefined where a street
 * goes on, or walls meet.
 *
 * @param feet the feet of walls, each from the left to the right
 */
export function closingWall(
  feet: readonly PlateLine[],
  cover: LandCover,
  camera: Camera,
  horizon: { left: number; right: number },
): [PlatePoint, PlatePoint] | undefined {
  const aheadOf = (at: PlatePoint) => groundPoint(camera, at)[1];
  const runsAway = ([from, to]: PlateLine) => aheadOf(to) > aheadOf(from);
  const pairs = feet
    .filter(runsAway)
    .flatMap(([, end]) => feet.filter((foot) => !runsAway(foot)).map(([start]) => [end, start] as const));
  const closing = pairs.find(([a, b]) => {
    const ratio = aheadOf(a) / aheadOf(b);
    if (b.u - a.u < BROAD || ratio > ALIKE || ratio < 1 / ALIKE) return false;
    const level = (u: number) => horizonAt(horizon, u);
    const ground = meanBetween(cover, cover.ground, [a, b], (u) => [level(u), lineAt([a, b], u)]);
    const sky = meanBetween(cover, cover.sky, [a, b], (u) => [level(u) - OVER, level(u)]);
    return ground < MOST.ground && sky < MOST.sky;
  });
  return closing && [closing[0], closing[1]];
}
