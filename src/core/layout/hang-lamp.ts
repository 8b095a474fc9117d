import { alongRay, project, rayThrough, type Camera, type PlatePoint } from '../geometry/camera';
import { groundPoint } from '../geometry/ground';
import { metresPerWidth } from '../geometry/place-on-stalk';
import type { Vec3 } from '../geometry/vec3';
import { wallAt } from '../plan/wall-at';
import type { PitchedDeck } from '../plan/deck-plane';
import type { WallPiece } from '../plan/wall-pieces';
import type { Plane } from '../plane/plane';
import { canopiesAbove } from './canopy-above';
import { lampGlass } from './lamp-glass';
import { postBelow } from './post-below';
import { hypot } from '../plane/hypot';

/** What is usual of a kind of lamp: the radius of its glass and its height over the ground, metres, and whether its glass is round. */
export interface UsualLamp {
  radius: number;
  height: number;
  round: boolean;
}

/** Where a lamp hangs as the plate shows it. */
export interface HungLamp {
  at: PlatePoint;
  /** Of its glass, fraction of the plate's width; undefined where no round glass was found. */
  radius?: number;
  foot: PlatePoint;
}

/** How far lamps differ from what is usual, as natural logarithms. */
const USUAL = { radius: 0.4, height: 0.3 } as const;

/** How exactly the foot of a post that is seen, and a wall behind, tell how far a lamp is, as logarithms, and how much they count. */
const POST = { exact: 0.1, counts: 2.5 } as const;
const WALL = { exact: 0.07, counts: 3 } as const;

/** How far under a canopy a lamp hangs as a rule, metres, and how much that counts. */
const CANOPY = { drop: 0.3, counts: 4 } as const;

/** How far before its wall a lamp hangs, metres: on an arm. */
const ARM = 0.3;

/** Least share of its length with which a ray goes toward its wall: along the wall an arm tells nothing. */
const EDGE_ON = 0.05;

/** How far ahead lamps are sought, metres, and in which steps. */
const AHEAD = { least: 1.2, most: 90, step: 1.015 } as const;

/** A lamp hangs no lower and no higher than this, metres. */
const UP = { least: 0.3, most: 14 } as const;

const off = (value: number, usual: number, spread: number) => (Math.log(value / usual) / spread) ** 2 / 2;

/** How far ahead a ray has come to an arm's length before a wall that it meets, metres. */
function beforeWall(ray: Vec3, place: Vec3, { normalX, normalY }: WallPiece): number {
  const level = hypot(ray[0], ray[1]);
  const toward = Math.max(EDGE_ON, -(ray[0] * normalX + ray[1] * normalY) / level);
  return place[1] - (ARM / toward) * (ray[1] / level);
}

/** What may carry a lamp beside its post. */
export interface Carriers {
  walls: readonly WallPiece[];
  decks: readonly PitchedDeck[];
}

/**
 * Where a lamp hangs whose glass was clicked: how far ahead is told by what carries it, a post below, a wall behind or a canopy above, by how large
 * and how high lamps of its kind usually are; what is seen counts as much as it is exact. Undefined where nothing fits.
 *
 * @param plate one channel, in codes
 * @param isGround whether ground is seen at a place of the plate
 */
export function hangLamp(
  plate: Plane,
  camera: Camera,
  { walls, decks }: Carriers,
  usual: UsualLamp,
  clicked: PlatePoint,
  isGround: (u: number, v: number) => boolean,
): HungLamp | undefined {
  const found = lampGlass(plate, clicked);
  const disc = usual.round && found?.isDisc ? found : undefined;
  const at = disc?.at ?? clicked;
  const ray = rayThrough(camera, at);
  const post = found && postBelow(plate, found, isGround);
  const postAhead = post && groundPoint(camera, post)[1];
  const wall = wallAt(camera, walls, at);
  const wallAhead = wall && beforeWall(ray, wall.place, wall.piece);
  const above = canopiesAbove(camera, decks);
  let best = { cost: Infinity, ahead: 0 };
  for (let ahead: number = AHEAD.least; ahead < AHEAD.most; ahead *= AHEAD.step) {
    const place = alongRay(camera, ray, ahead / ray[1]);
    if (place[2] < UP.least || place[2] > UP.most) continue;
    if (wallAhead !== undefined && ahead > wallAhead * (1 + WALL.exact)) break;
    let cost = off(place[2], usual.height, USUAL.height);
    if (found) cost += off(found.radius * metresPerWidth(camera, at, place), usual.radius, USUAL.radius);
    if (postAhead !== undefined) cost -= POST.counts * Math.exp(-off(ahead, postAhead, POST.exact));
    const drop = above(place);
    if (drop !== undefined) cost -= CANOPY.counts * Math.exp(-drop / CANOPY.drop);
    if (wallAhead !== undefined) cost -= WALL.counts * Math.exp(-off(ahead, wallAhead, WALL.exact));
    if (cost < best.cost) best = { cost, ahead };
  }
  if (best.cost === Infinity) return undefined;
  const [x, y] = alongRay(camera, ray, best.ahead / ray[1]);
  const foot = project(camera, [x, y, 0]);
  return foot && { at, radius: disc?.radius, foot: { u: foot.u, v: foot.v } };
}
