import type { CoveragePicture } from '../matte/coverage-picture';
import { intersectLevel, type PitchedDeck } from './deck-plane';
import { project, rayThrough, type Camera, type PlatePoint } from '../geometry/camera';
import { FARTHEST_GROUND } from '../geometry/ground';
import { RANGES, clampTo } from '../fields/ranges';
import { hypot } from '../plane/hypot';
import { along, sidesSeen, type Level } from './box-sides';
import { meetUpright, type WallPiece } from './wall-pieces';
import { standsOn, type StandingBox } from './surfaces';

/** From here on a place is covered. */
const COVERED = 127;

/** Share of the lower edge that may lie before the faces of a box: a wing mirror, a stray pixel. */
const STRAY = 0.04;

/** Longest side of a box that is fitted, metres, and the shortest. */
const SIDE = { least: 0.1, most: 30 } as const;

/** What a side that is not seen measures at least, as a share of the other. */
const UNSEEN = 0.25;

/** How far before a wall a box ends, metres. */
const OFF_WALL = 0.2;

/** Halvings of the heights among which that of a lid is looked for. */
const HALVINGS = 24;

/** Turns that are tried where none is told, radians: a box looks the same after a quarter. */
const ANY_TURN = Array.from({ length: 30 }, (_, k) => (k * Math.PI) / 60);

/** A standee's foot, its near corner, and the box that stands there. */
export interface FittedBox {
  foot: PlatePoint;
  box: StandingBox;
}

/** What of a matte a box is fitted to. */
interface Outskirts {
  /** Where the lowest places of its columns lie on its level, metres. */
  low: Level[];
  /** Level ways to the leftmost and the rightmost of them. */
  left: Level;
  right: Level;
  /** Its upper edge, fraction of the height. */
  top: number;
}

function outskirtsOf(
  { width, height, data }: CoveragePicture,
  camera: Camera,
  level: number,
): Outskirts | undefined {
  const low: Level[] = [];
  let top = height;
  for (let x = 0; x < width; x++) {
    let lowest = -1;
    for (let y = 0; y < height; y++) {
      if (data[y * width + x] <= COVERED) continue;
      lowest = y;
      top = Math.min(top, y);
    }
    if (lowest < 0) continue;
    const ray = rayThrough(camera, { u: (x + 0.5) / width, v: (lowest + 1) / height });
    const reach = intersectLevel(level, camera.eyeHeight, ray[2]);
    if (reach * ray[1] < FARTHEST_GROUND) low.push([ray[0] * reach, ray[1] * reach]);
  }
  if (low.length < 2) return undefined;
  return { low, left: low[0], right: low.at(-1)!, top: top / height };
}

/** How far a line of some direction may be pushed away from the eye until the lower edge touches it, metres. */
function support(low: readonly Level[], away: Level): number {
  const depths = low.map((place) => along(place, away)).sort((p, q) => p - q);
  return depths[Math.floor(STRAY * depths.length)];
}

/** Where the level way from the eye through a place meets a line, as metres along the line from a place of it. */
function meet([x, y]: Level, [dx, dy]: Level, [px, py]: Level): number {
  const turn = dx * py - dy * px;
  const length = Math.abs(turn) < 1e-9 ? Infinity : -(x * py - y * px) / turn;
  return length > 0 ? Math.min(SIDE.most, Math.max(SIDE.least, length)) : SIDE.least;
}

/** How far along a way from a place it comes to the nearest wall, as a share of it: 1 where it meets none. */
function untilWall([x, y]: Level, [wx, wy]: Level, walls: readonly WallPiece[]): number {
  const met = walls.map(({ ax, ay, bx, by }) =>
    meetUpright({ ax: ax - x, ay: ay - y, bx: bx - x, by: by - y }, wx, wy),
  );
  return Math.max(0, Math.min(1, Math.min(...met) - OFF_WALL / hypot(wx, wy)));
}

const sum = ([x, y]: Level, [wx, wy]: Level): Level => [x + wx, y + wy];

/** The footprint that touches a lower edge from before, with its sides at a turn. It ends before the walls behind it. */
function footprint({ low, left, right }: Outskirts, turn: number, walls: readonly WallPiece[]) {
  const { toLeft, toRight } = sidesSeen(turn, low[low.length >> 1]);
  const [offLeft, offRight] = [support(low, toRight), support(low, toLeft)];
  const corner: Level = [
    toLeft[0] * offRight + toRight[0] * offLeft,
    toLeft[1] * offRight + toRight[1] * offLeft,
  ];
  const [first, second] = [meet(corner, toLeft, left), meet(corner, toRight, right)];
  // Of a side that is not seen nothing is known.
  const [longLeft, longRight] = [Math.max(first, UNSEEN * second), Math.max(second, UNSEEN * first)];
  const slacks = low.map((place) =>
    Math.min(Math.abs(along(place, toRight) - offLeft), Math.abs(along(place, toLeft) - offRight)),
  );
  const scaled = ([x, y]: Level, by: number): Level => [x * by, y * by];
  const fullLeft = scaled(toLeft, longLeft);
  const fullRight = scaled(toRight, longRight);
  const edgeRight = scaled(fullRight, untilWall(corner, fullRight, walls));
  const freeLeft = Math.min(
    untilWall(corner, fullLeft, walls),
    untilWall(sum(corner, edgeRight), fullLeft, walls),
  );
  return {
    corner,
    left: sum(corner, scaled(fullLeft, freeLeft)),
    right: sum(corner, edgeRight),
    /** How far the lower edge lies behind the sides in the mean, metres. */
    slack: slacks.reduce((total, slack) => total + slack, 0) / slacks.length,
  };
}

/** The height at which the upper edge of a box is seen at a height of the picture, metres. */
function heightSeen(camera: Camera, corners: readonly Level[], level: number, top: number): number {
  const seenAt = (height: number) =>
    Math.min(...corners.map(([x, y]) => project(camera, [x, y, level + height])?.v ?? 0));
  let [low, high]: [number, number] = [RANGES.boxHeight.min, RANGES.boxHeight.max];
  for (let k = 0; k < HALVINGS; k++) {
    const middle = (low + high) / 2;
    if (seenAt(middle) > top) low = middle;
    else high = middle;
  }
  return high;
}

/**
 * The box that a standee's matte shows: its footprint touches the matte's lower edge from before, its sides end where the
 * matte does, and its lid is seen at the matte's upper edge.
 *
 * @param foot where it stands
 * @param told `turns` of its sides, radians from the right toward ahead, of which that which fits the lower edge best is taken, without
 * them any; and the `walls` before which it ends
 * @returns undefined where its lower edge is not seen on the ground
 */
export function fitBox(
  camera: Camera,
  decks: readonly PitchedDeck[],
  coverage: CoveragePicture,
  foot: PlatePoint,
  told: { turns?: readonly number[]; walls?: readonly WallPiece[] } = {},
): FittedBox | undefined {
  const { turns = ANY_TURN, walls = [] } = told;
  const level = standsOn(camera, foot, decks)[2];
  const outskirts = outskirtsOf(coverage, camera, level);
  if (!outskirts) return undefined;
  const [best] = turns.map((turn) => footprint(outskirts, turn, walls)).sort((p, q) => p.slack - q.slack);
  const { corner, left, right } = best;
  const far: Level = [left[0] + right[0] - corner[0], left[1] + right[1] - corner[1]];
  const seen = ([x, y]: Level) => project(camera, [x, y, level]);
  const [at, toLeft, toRight] = [seen(corner), seen(left), seen(right)];
  if (!at || !toLeft || !toRight) return undefined;
  const height = heightSeen(camera, [corner, left, right, far], level, outskirts.top);
  return { foot: at, box: { left: toLeft, right: toRight, height: clampTo(height, RANGES.boxHeight) } };
}
