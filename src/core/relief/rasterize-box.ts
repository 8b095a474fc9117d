import { hypot } from '../plane/hypot';
import type { BoxPiece } from '../plan/box-piece';
import type { Relief } from './relief-planes';

/** A box made ready for rays from the eye. */
export interface ReadyBox {
  /** Where the eye is, in shares of its two edges and its height. */
  eye: readonly [left: number, right: number, up: number];
  /** Shares of its edges that a metre aside and a metre ahead are, and of its height that a metre is. */
  perAside: readonly [left: number, right: number];
  perAhead: readonly [left: number, right: number];
  perUp: number;
  /** Outward normals of the sides at the near corner: of the one without the left edge, and without the right one. */
  beside: readonly [readonly [x: number, y: number], readonly [x: number, y: number]];
  /** How far ahead it lies, metres. */
  from: number;
  to: number;
}

export function readyBox(
  { x, y, z, left: [lx, ly], right: [rx, ry], height }: BoxPiece,
  eyeHeight: number,
): ReadyBox {
  const turn = lx * ry - ly * rx;
  const perAside = [ry / turn, -ly / turn] as const;
  const perAhead = [-rx / turn, lx / turn] as const;
  const outward = (share: 0 | 1) => {
    const long = hypot(perAside[share], perAhead[share]);
    return [-perAside[share] / long, -perAhead[share] / long] as const;
  };
  const corners = [y, y + ly, y + ry, y + ly + ry];
  return {
    eye: [
      -(x * perAside[0] + y * perAhead[0]),
      -(x * perAside[1] + y * perAhead[1]),
      (eyeHeight - z) / height,
    ],
    ...{ perAside, perAhead, perUp: 1 / height },
    beside: [outward(0), outward(1)],
    from: Math.max(0.1, Math.min(...corners)),
    to: Math.max(0.1, ...corners),
  };
}

/** Least fall of a ray onto a lid, as a share of its way ahead. */
const EDGE_ON = 0.05;

/** Where a ray comes in between two planes a share of 1 apart, in its own lengths. */
const entering = (eye: number, way: number) => (way > 0 ? -eye / way : way < 0 ? (1 - eye) / way : -Infinity);

/** Where it goes out again. */
const leaving = (eye: number, way: number) => (way > 0 ? (1 - eye) / way : way < 0 ? -eye / way : Infinity);

/** How far a face bends toward the one beside it at a share of its breadth, -1 to 1: at the edge both lean alike, so that none is seen. */
function bend(share: number, roundness: number): number {
  if (roundness === 0) return 0;
  const out = Math.min(1, Math.max(-1, 2 * share - 1));
  return Math.sign(out) * Math.max(0, (Math.abs(out) - 1) / roundness + 1);
}

/**
 * Lays one pixel of a box: the face that its ray comes in by. What of its matte reaches beyond the box goes on as that face
 * does, no nearer and no farther than the box. Round edges lean from face to face, without a fold.
 *
 * @param met how far along the ray a wall is met: nothing of the box lies behind it
 * @param roundness 0: flat faces with sharp edges; 1: as round as a pebble
 */
export function layBox(
  out: Relief,
  i: number,
  [aside, ahead, rise]: readonly [number, number, number],
  { eye, perAside, perAhead, perUp, beside, from, to }: ReadyBox,
  met: number,
  roundness: number,
): void {
  const wayLeft = aside * perAside[0] + ahead * perAhead[0];
  const wayRight = aside * perAside[1] + ahead * perAhead[1];
  const wayUp = rise * perUp;
  const inLeft = entering(eye[0], wayLeft);
  const inRight = entering(eye[1], wayRight);
  // A lid is seen from above, and only over the box itself. One that is seen from its edge shows its rim.
  const over = -rise > EDGE_ON * ahead && eye[2] > 1 ? entering(eye[2], wayUp) : -Infinity;
  const inTop = over < leaving(eye[0], wayLeft) && over < leaving(eye[1], wayRight) ? over : -Infinity;
  const reach = Math.min(met, to / ahead, Math.max(from / ahead, inLeft, inRight, inTop));
  const isTop = inTop > inLeft && inTop > inRight;
  const side = inLeft > inRight ? 0 : 1;
  const facing = (side === 0 ? wayLeft : wayRight) > 0 ? 1 : -1;
  // The face that the ray comes in by faces wholly its own way, the others as far as it bends toward them.
  const along = (face: 0 | 1, share: number) => (!isTop && side === face ? facing : -bend(share, roundness));
  const [toLeft, toRight] = [along(0, eye[0] + reach * wayLeft), along(1, eye[1] + reach * wayRight)];
  const up = isTop ? 1 : Math.max(0, bend(eye[2] + reach * wayUp, roundness));
  const sideways = (axis: 0 | 1) => toLeft * beside[0][axis] + toRight * beside[1][axis];
  const [nx, ny, nz] = [sideways(0), sideways(1), up];
  const long = Math.sqrt(nx * nx + ny * ny + nz * nz) || 1;
  out.reach[i] = reach;
  out.normalX[i] = nx / long;
  out.normalY[i] = ny / long;
  out.normalZ[i] = nz / long;
  out.unknownFacing[i] = 0;
}
