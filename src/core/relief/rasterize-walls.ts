import type { Camera } from '../geometry/camera';
import type { Relief } from './relief-planes';
import type { ReliefRow } from './relief-row';
import { rippleNormal } from './ripple';
import type { Surfaces } from './relief-surfaces';
import type { WallPiece } from '../plan/wall-pieces';

/**
 * A thing that the survey found stands before a wall if its foot lies nearer than this share of the way to it, and this
 * far below its foot, fraction of the height: what a person has drawn is surer than what was found.
 */
const BEFORE_WALL = { share: 0.75, below: 0.08 } as const;

/** A found foot this near to that of a drawn wall, as shares of the wall's distance, is the wall's own. */
const OWN_FOOT = { from: 0.8, to: 1.25 } as const;

/** Least way ahead of both ends of a wall at which its columns are told, metres; nearer ones may be anywhere. */
const TOLD = 0.01;

/** A wall's piece with the coverage at which it ends, and how far to the right it is seen, over how far ahead. */
interface SpannedWall {
  piece: WallPiece;
  end?: Float32Array;
  /** Of its ends, the left and the right one; undefined where they tell nothing. */
  span?: readonly [left: number, right: number];
}

/** Walls made ready to be rasterized. */
export const spanWalls = ({ walls, ends }: Pick<Surfaces, 'walls' | 'ends'>): SpannedWall[] =>
  walls.map((piece) => {
    const { ax, ay, bx, by, until } = piece;
    const told = Math.min(ay, by) > TOLD;
    const [a, b] = [ax / ay, bx / by];
    return {
      piece,
      end: until === undefined ? undefined : ends[until],
      span: told ? [Math.min(a, b), Math.max(a, b)] : undefined,
    };
  });

/**
 * Lays a row of walls: at each pixel the nearest that its ray meets, but for what stands clearly before it, and for the sky. What is seen
 * under a wall's foot lies before it: where the survey's soft edges put it behind, it is ground.
 */
export function rasterizeWalls(
  out: Relief,
  row: ReliefRow,
  walls: readonly SpannedWall[],
  { eyeHeight, down }: Camera,
): void {
  const { first, width, met, under, wall, claimed, ground, land, standsAt, footRise, ahead } = row;
  met.fill(Infinity);
  if (walls.length === 0) return;
  under.fill(Infinity);
  claimed.fill(0);
  walls.forEach((spanned, k) => meetRow(row, spanned, k, eyeHeight));
  for (let x = 0; x < width; x++) {
    if (met[x] === Infinity) {
      if (out.reach[first + x] > under[x]) layUnderFoot(out, row, x, eyeHeight);
      continue;
    }
    if (land[x] <= 0.5) {
      met[x] = Infinity;
      continue;
    }
    // How far below the wall's foot the thing at this pixel stands, fraction of the height.
    const below = (footRise[x] + eyeHeight / met[x]) / down[2];
    const before =
      standsAt[x] < BEFORE_WALL.share * met[x] * ahead[x] && below > BEFORE_WALL.below && claimed[x] === 0;
    if (ground[x] > 0.5 || !before) layWall(out, row, first + x, x, walls[wall[x]].piece);
    else met[x] = Infinity;
  }
}

/** Where the rays of a row meet a wall, and whether it is nearer than those before. */
function meetRow(row: ReliefRow, { piece, end, span }: SpannedWall, k: number, eyeHeight: number): void {
  const { first, width, aside, ahead, rise, met, under, wall, claimed, standsAt } = row;
  const { ax, ay, height, base = 0 } = piece;
  const ex = piece.bx - ax;
  const ey = piece.by - ay;
  const cross = ax * ey - ay * ex;
  for (let x = span ? column(row, span[0]) : 0; x < width; x++) {
    const toward = aside[x];
    const away = ahead[x];
    if (span && toward > span[1] * away) break;
    const turn = toward * ey - away * ex;
    if (Math.abs(turn) < 1e-9) continue;
    const reach = cross / turn;
    const share = (ax * away - ay * toward) / turn;
    if (!(reach > 0 && share >= 0 && share <= 1)) continue;
    if (end !== undefined && end[first + x] < 0.5) continue;
    const at = eyeHeight + reach * rise[x];
    if (reach < met[x] && at >= base && at <= height) {
      met[x] = reach;
      wall[x] = k;
    }
    if (at < base && reach < under[x]) under[x] = reach;
    const own = standsAt[x] / (reach * away);
    if (own > OWN_FOOT.from && own < OWN_FOOT.to) claimed[x] = 1;
  }
}

/** The first column of a row that sees as far to the right, over how far ahead, or farther. */
function column({ width, aside, ahead }: ReliefRow, tangent: number): number {
  let low = 0;
  let high = width;
  while (low < high) {
    const middle = (low + high) >> 1;
    if (aside[middle] < tangent * ahead[middle]) low = middle + 1;
    else high = middle;
  }
  return low;
}

/** Lays the ground that is seen under a wall's foot. */
function layUnderFoot(out: Relief, { first, ground, rise }: ReliefRow, x: number, eyeHeight: number): void {
  if (rise[x] >= 0) return;
  const i = first + x;
  ground[x] = 1;
  out.reach[i] = -eyeHeight / rise[x];
  [out.normalX[i], out.normalY[i], out.normalZ[i], out.unknownFacing[i]] = [0, 0, 1, 0];
}

function layWall(
  out: Relief,
  { met, aside, ahead, foldRight, foldUp }: ReliefRow,
  i: number,
  x: number,
  wall: WallPiece,
): void {
  const { ax, ay, bx, by, endA, endB, finish } = wall;
  const ex = bx - ax;
  const ey = by - ay;
  const along = ((met[x] * aside[x] - ax) * ex + (met[x] * ahead[x] - ay) * ey) / (ex * ex + ey * ey);
  const nx = endA[0] + along * (endB[0] - endA[0]);
  const ny = endA[1] + along * (endB[1] - endA[1]);
  const long = Math.sqrt(nx * nx + ny * ny);
  out.reach[i] = met[x];
  out.normalX[i] = nx / long;
  out.normalY[i] = ny / long;
  out.normalZ[i] = 0;
  out.unknownFacing[i] = 0;
  out.sheen[i] = finish.sheen;
  out.alpha[i] = finish.roughness * finish.roughness;
  if (finish.crease > 0) rippleNormal(out, i, finish.crease * foldRight[x], finish.crease * foldUp[x]);
}
