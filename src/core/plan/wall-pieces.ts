import { rayThrough, type Camera, type PlatePoint } from '../geometry/camera';
import { FARTHEST_GROUND, groundPoint } from '../geometry/ground';
import { DULL, type RippledFinish, type Wall } from './surfaces';
import type { Vec3 } from '../geometry/vec3';
import { hypot } from '../plane/hypot';

/**
 * One straight piece of a wall: upright over the ground from A to B, metres. Its normal is level and faces the eye; where
 * the next piece goes on at a shallow angle, the wall is round, and normals at its ends lean toward each other.
 */
export interface WallPiece {
  ax: number;
  ay: number;
  bx: number;
  by: number;
  height: number;
  /** Where it begins, metres; without it, on the ground. */
  base?: number;
  normalX: number;
  normalY: number;
  /** Normals at A and at B. */
  endA: readonly [x: number, y: number];
  endB: readonly [x: number, y: number];
  /**
   * How far behind its face it holds light back, metres. Where normals lean apart, light that grazes a flat piece would end
   * at its edge while the cosine is not yet 0; so it ends by the cosine alone.
   */
  behind: number;
  /** The matte outside of which it is not there. */
  until?: string;
  finish: RippledFinish;
}

/** Most that a piece holds light back behind its face, metres. */
const MOST_BEHIND = 0.1;

/** Pieces shorter than this are left out, metres: they have no direction. */
const SHORTEST = 0.01;

/** Cosine of the angle between two pieces up to which a wall is taken to be round there. */
const ROUND = 0.6;

/** A straight piece between two places of the ground, metres. */
export function straightPiece(
  [ax, ay]: readonly [x: number, y: number],
  [bx, by]: readonly [x: number, y: number],
  own: Pick<WallPiece, 'height' | 'base' | 'until' | 'finish'>,
): WallPiece {
  const length = hypot(bx - ax, by - ay);
  const [nx, ny] = [(by - ay) / length, (ax - bx) / length];
  // The eye stands at the origin.
  const facing = nx * ax + ny * ay > 0 ? -1 : 1;
  const normal = [facing * nx, facing * ny] as const;
  const [normalX, normalY] = normal;
  return { ax, ay, bx, by, ...own, normalX, normalY, endA: normal, endB: normal, behind: 0 };
}

/** The pieces of walls in the world. A wall that says nothing of its finish is dull. */
export function wallPieces(
  camera: Camera,
  walls: readonly (Pick<Wall, 'foot' | 'height' | 'until'> & Partial<RippledFinish>)[],
): WallPiece[] {
  return walls.flatMap(({ foot, height, until, ...own }) => {
    const finish = { ...DULL, ...own };
    const pieces = foot.slice(1).flatMap((to, i): WallPiece[] => {
      const [[ax, ay], [bx, by]] = feetOnGround(camera, foot[i], to);
      if (!(hypot(bx - ax, by - ay) > SHORTEST)) return [];
      return [straightPiece([ax, ay], [bx, by], { height, until, finish })];
    });
    return pieces
      .map((piece, i) => ({
        ...piece,
        endA: meanNormal(pieces[i - 1], piece),
        endB: meanNormal(pieces[i + 1], piece),
      }))
      .flatMap(bent)
      .map((piece) => ({ ...piece, behind: Math.min(MOST_BEHIND, (lengthOf(piece) * turnOf(piece)) / 2) }));
  });
}

/**
 * The ends of a straight foot on the ground. Where it is drawn over the horizon, it ends where it comes to the farthest ground: so the wall
 * keeps its way.
 */
function feetOnGround(camera: Camera, from: PlatePoint, to: PlatePoint): [Vec3, Vec3] {
  const [a, b] = [rayThrough(camera, from), rayThrough(camera, to)];
  // Above 0 from where a ray meets no ground within the farthest; even along the foot, as rays are.
  const beyond = (ray: Vec3) => camera.eyeHeight * ray[1] + FARTHEST_GROUND * ray[2];
  const [overA, overB] = [beyond(a), beyond(b)];
  const cut = overA / (overA - overB);
  const at = { u: from.u + cut * (to.u - from.u), v: from.v + cut * (to.v - from.v) };
  return [
    groundPoint(camera, overA > 0 && overB <= 0 ? at : from),
    groundPoint(camera, overB > 0 && overA <= 0 ? at : to),
  ];
}

/** Radians that a round piece turns in one straight part of it. */
const PART_TURN = 0.14;

const lengthOf = ({ ax, ay, bx, by }: WallPiece) => hypot(bx - ax, by - ay);

/** The angle between the normals at a piece's ends, radians. */
const turnOf = ({ endA, endB }: WallPiece) =>
  Math.acos(Math.min(1, Math.max(-1, endA[0] * endB[0] + endA[1] * endB[1])));

/** A piece whose ends lean apart, as straight parts along a cubic that meets both at right angles (Hermite). */
function bent(piece: WallPiece): WallPiece[] {
  const { ax, ay, bx, by, endA, endB } = piece;
  const parts = Math.ceil(turnOf(piece) / PART_TURN);
  if (parts < 2) return [piece];
  const length = lengthOf(piece);
  const along = ([nx, ny]: WallPiece['endA']) => {
    const sign = -ny * (bx - ax) + nx * (by - ay) > 0 ? length : -length;
    return [-ny * sign, nx * sign] as const;
  };
  const [[ux, uy], [vx, vy]] = [along(endA), along(endB)];
  const place = (t: number) => {
    const [a, b, u, v] = [(1 + 2 * t) * (1 - t) ** 2, t * t * (3 - 2 * t), t * (1 - t) ** 2, t * t * (t - 1)];
    return [a * ax + b * bx + u * ux + v * vx, a * ay + b * by + u * uy + v * vy] as const;
  };
  const normal = (t: number) => {
    const [x, y] = [endA[0] + t * (endB[0] - endA[0]), endA[1] + t * (endB[1] - endA[1])];
    const long = hypot(x, y);
    return [x / long, y / long] as const;
  };
  return Array.from({ length: parts }, (_, k) => {
    const [from, to] = [k / parts, (k + 1) / parts];
    const [[x0, y0], [x1, y1], [normalX, normalY]] = [place(from), place(to), normal((from + to) / 2)];
    return {
      ...piece,
      ax: x0,
      ay: y0,
      bx: x1,
      by: y1,
      normalX,
      normalY,
      endA: normal(from),
      endB: normal(to),
    };
  });
}

/** A piece this many times as long as its neighbour is straight to its end, and the neighbour bends into it. */
const STRAIGHT = 1.5;

/** The normal at a corner between two pieces: the own alone where they meet at an edge. */
function meanNormal(other: WallPiece | undefined, own: WallPiece): readonly [number, number] {
  const { normalX, normalY } = own;
  if (!other || other.normalX * normalX + other.normalY * normalY < ROUND) return [normalX, normalY];
  const ratio = lengthOf(other) / lengthOf(own);
  if (ratio < 1 / STRAIGHT) return [normalX, normalY];
  if (ratio > STRAIGHT) return [other.normalX, other.normalY];
  const [x, y] = [normalX + other.normalX, normalY + other.normalY];
  const long = hypot(x, y);
  return [x / long, y / long];
}

/** How far along a way from the origin, in its own lengths, the upright plane over a wall's foot is met; Infinity where not. */
export function meetUpright(
  { ax, ay, bx, by }: Pick<WallPiece, 'ax' | 'ay' | 'bx' | 'by'>,
  aside: number,
  ahead: number,
): number {
  const [ex, ey] = [bx - ax, by - ay];
  const turn = aside * ey - ahead * ex;
  if (Math.abs(turn) < 1e-9) return Infinity;
  const reach = (ax * ey - ay * ex) / turn;
  const share = (ax * ahead - ay * aside) / turn;
  return reach > 0 && share >= 0 && share <= 1 ? reach : Infinity;
}

/** The same, up to the wall's height. */
export function meetWall(piece: WallPiece, eyeHeight: number, ray: Vec3): number {
  const reach = meetUpright(piece, ray[0], ray[1]);
  const at = eyeHeight + reach * ray[2];
  return at >= 0 && at <= piece.height ? reach : Infinity;
}
