import { project, type Camera, type PlatePoint } from '../geometry/camera';
import { groundPoint, horizonAt } from '../geometry/ground';
import { lineAt } from '../geometry/line-at';
import type { PlateLine } from '../geometry/vanishing-point';
import { along, type Level } from '../plan/box-sides';
import { hypot } from '../plane/hypot';
import type { LandCover } from './settle-foot';

/** The far ends of two walls are as far off as one another within this ratio. */
const ALIKE = 1.15;

/** Cosine of the angle between two walls that run beside each other, at least. */
const PARALLEL = 0.94;

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
  [from, to]: Readonly<PlateLine>,
  rows: (u: number) => readonly [top: number, bottom: number],
): number {
  let [sum, count] = [0, 0];
  for (let x = Math.ceil(from.u * width); x < Math.floor(to.u * width); x++) {
    const [top, bottom] = rows((x + 0.5) / width).map((v) => Math.round(v * height));
    for (let y = Math.max(0, top); y < Math.min(height, bottom); y++, count++) sum += cover[y * width + x];
  }
  return count > 0 ? sum / count : 0;
}

/** A wall as it runs away: a place of its far end, the way along it, both on the ground, and that end as it is seen. */
interface RunningAway {
  end: PlatePoint;
  place: Level;
  way: Level;
}

function runningAway(camera: Camera, near: PlatePoint, end: PlatePoint): RunningAway | undefined {
  const [[nx, ny], [x, y]] = [groundPoint(camera, near), groundPoint(camera, end)];
  const long = hypot(x - nx, y - ny);
  return y > ny ? { end, place: [x, y], way: [(x - nx) / long, (y - ny) / long] } : undefined;
}

/** Where what runs square to two walls, midway between their ends, meets each of them, as it is seen. */
function squareAcross(camera: Camera, a: RunningAway, b: RunningAway): [PlatePoint, PlatePoint] | undefined {
  const way: Level = [a.way[0] + b.way[0], a.way[1] + b.way[1]];
  const middle: Level = [(a.place[0] + b.place[0]) / 2, (a.place[1] + b.place[1]) / 2];
  const [left, right] = [a, b].map(({ place, way: own }) => {
    const further = (along(middle, way) - along(place, way)) / along(own, way);
    return project(camera, [place[0] + further * own[0], place[1] + further * own[1], 0]);
  });
  return left && right && [left, right];
}

/**
 * The foot of a wall that closes the view between two others that run beside each other, square to them: they end equally far off, and
 * between them something stands and no ground goes on. Its own foot may be hidden by what stands before it. Undefined where a street goes
 * on, or walls meet.
 *
 * @param feet the feet of walls, each from the left to the right
 */
export function closingWall(
  feet: readonly PlateLine[],
  cover: LandCover,
  camera: Camera,
  horizon: { left: number; right: number },
): [PlatePoint, PlatePoint] | undefined {
  const left = feet.flatMap(([from, to]) => runningAway(camera, from, to) ?? []);
  const right = feet.flatMap(([from, to]) => runningAway(camera, to, from) ?? []);
  const level = (u: number) => horizonAt(horizon, u);
  const closed = left
    .flatMap((a) => right.map((b) => [a, b] as const))
    .find(([a, b]) => {
      const ratio = a.place[1] / b.place[1];
      if (b.end.u - a.end.u < BROAD || ratio > ALIKE || ratio < 1 / ALIKE) return false;
      if (along(a.way, b.way) < PARALLEL) return false;
      const foot = [a.end, b.end] as const;
      const ground = meanBetween(cover, cover.ground, foot, (u) => [level(u), lineAt(foot, u)]);
      const sky = meanBetween(cover, cover.sky, foot, (u) => [level(u) - OVER, level(u)]);
      return ground < MOST.ground && sky < MOST.sky;
    });
  return closed && squareAcross(camera, ...closed);
}
