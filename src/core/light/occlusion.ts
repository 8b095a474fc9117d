import { smoothStep } from '../plane/smooth-step';
import type { Camera } from '../geometry/camera';
import type { Relief } from '../relief/relief-planes';
import type { DeckPlane } from '../plan/deck-plane';
import type { DeckPiece } from '../plan/surfaces';
import type { WallPiece } from '../plan/wall-pieces';
import { cross, dot, scale, type Vec3 } from '../geometry/vec3';
import { boxAround } from '../plane/box';
import type { Region } from '../plane/region';
import { withinOutline } from '../geometry/within-outline';
import type { PointLight } from './point-light';
import { softLevel } from './soft-coverage';
import { hypot } from '../plane/hypot';

/** A matte's coverage as light meets what it stands for. */
export interface SeenCoverage {
  /** Its size, on a copy of the plate. */
  width: number;
  height: number;
  /** SOFT_LEVELS planes, as `softenCoverage` makes them. */
  levels: Float32Array;
  /** Where it covers anything, fractions of the plate. */
  bounds: Bounds;
}

/** A standee as light meets it. */
export interface StandingCoverage extends SeenCoverage {
  /** How far ahead it stands, metres. */
  ahead: number;
}

export interface Bounds {
  left: number;
  right: number;
  top: number;
  bottom: number;
}

export interface Occluders {
  walls: readonly WallPiece[];
  decks: readonly DeckPiece[];
  standees: readonly StandingCoverage[];
  /** Coverages by the mattes at which walls end, by matte. */
  ends: Readonly<Record<string, SeenCoverage>>;
}

/** Way at either end of a ray on which nothing casts a shadow, metres: a surface is not its own. */
export const ENDS = 0.04;
/** A place this near to a wall's plane lies on it, metres: less than ENDS, or light would leak along its foot. */
export const ON_WALL = 0.0005;
/** A lamp this near to a standee's plane hangs on it, metres. */
export const NEAR_STANDEE = 0.25;
/** Least half width of a shadow's edge, metres. */
export const SHARPEST = 1e-4;

/** A wall's piece as it holds light back: a place, a way along it and a length. */
export const wallLine = ({ ax, ay, bx, by, height, normalX, normalY, behind }: WallPiece) => {
  const length = hypot(bx - ax, by - ay);
  const [ex, ey] = [(bx - ax) / length, (by - ay) / length];
  return { ax: ax - behind * normalX, ay: ay - behind * normalY, ex, ey, length, height };
};

/** A wall's piece with what does not change from pixel to pixel. `side`: on which side of it the light hangs. */
const readyWall = (wall: WallPiece, [lx, ly]: PointLight['place']) => {
  const line = wallLine(wall);
  return { ...line, side: (lx - line.ax) * line.ey - (ly - line.ay) * line.ex };
};

/** Where world points are seen, as sums of products: u = (x ux + y uy + z uz) / depth - u0, and so for v. */
export function seeing({ across, down, corner, aspect }: Camera) {
  const normal = cross(across, down);
  const scaled = (axis: Vec3) => scale(axis, 1 / dot(axis, axis));
  const [u, v] = [scaled(across), scaled(down)];
  const depth = scale(normal, 1 / dot(corner, normal));
  return { u, v, depth, u0: dot(corner, u), v0: dot(corner, v), aspect };
}

/** The standees that do not hold the light itself. */
export const standingBefore = (standees: readonly StandingCoverage[], { place }: PointLight) =>
  standees.filter(({ ahead }) => Math.abs(ahead - place[1]) > NEAR_STANDEE);

/**
 * How much of a small source each place of a region sees past walls, decks and standees, 0 to 1, multiplied into `out`.
 * Edges are soft by the source's size: on an occluder a share t of the way to the light, its disc looks t times as large.
 */
export function occlude(
  out: Float32Array,
  relief: Pick<Relief, 'reach'>,
  camera: Camera,
  region: Region,
  light: PointLight,
  { walls, decks, standees, ends: mattes }: Occluders,
): void {
  const { corner, across, down, eyeHeight } = camera;
  const [lx, ly, lz] = light.place;
  const before = standingBefore(standees, light);
  const pieces = walls.map((wall) => ({
    ...readyWall(wall, light.place),
    end: wall.until === undefined ? undefined : mattes[wall.until],
  }));
  const sight = seeing(camera);
  for (let y = 0, i = 0; y < region.height; y++) {
    const v = (region.top + y + 0.5) / region.fullHeight;
    for (let x = 0; x < region.width; x++, i++) {
      if (out[i] === 0) continue;
      const u = (region.left + x + 0.5) / region.fullWidth;
      const reach = relief.reach[i];
      const px = (corner[0] + u * across[0] + v * down[0]) * reach;
      const py = (corner[1] + u * across[1] + v * down[1]) * reach;
      const pz = (corner[2] + u * across[2] + v * down[2]) * reach + eyeHeight;
      const ends = ENDS / Math.max(ENDS, hypot(lx - px, ly - py, lz - pz));
      const between = (t: number) => t > ends && t < 1 - ends;
      let seen = out[i];
      for (const wall of pieces) {
        const side = (px - wall.ax) * wall.ey - (py - wall.ay) * wall.ex;
        // Nothing stands between places on one side.
        if (side * wall.side >= 0 || Math.abs(side) <= ON_WALL) continue;
        const t = side / (side - wall.side);
        if (t >= 1 - ends) continue;
        const [wx, wy, wz] = [px + t * (lx - px), py + t * (ly - py), pz + t * (lz - pz)];
        const along = (wx - wall.ax) * wall.ex + (wy - wall.ay) * wall.ey;
        const inside = Math.min(along, wall.length - along, wall.height - wz);
        const there = wall.end ? seenCoverage(wall.end, sight, wx, wy, wz - eyeHeight, light.radius * t) : 1;
        seen *= 1 - there * covered(inside, light.radius * t);
        if (seen === 0) break;
      }
      for (const deck of decks) {
        if (seen === 0) break;
        const t = crossing(px, py, pz, light.place, deck);
        if (!between(t)) continue;
        const inside = withinOutline(deck.corners, px + t * (lx - px), py + t * (ly - py));
        seen *= 1 - covered(inside, light.radius * t);
      }
      for (const standee of before) {
        if (seen === 0) break;
        const { ahead } = standee;
        if (py > ahead === ly > ahead) continue;
        const t = (ahead - py) / (ly - py);
        if (!between(t)) continue;
        const [sx, sz] = [px + t * (lx - px), pz + t * (lz - pz) - eyeHeight];
        seen *= 1 - seenCoverage(standee, sight, sx, ahead, sz, light.radius * t);
      }
      out[i] = seen;
    }
  }
}

/** Share of the way to a light at which it crosses a deck's plane; -1 where it does not. */
function crossing(
  px: number,
  py: number,
  pz: number,
  [lx, ly, lz]: Vec3,
  { height, riseX, riseY }: DeckPlane,
): number {
  const [from, to] = [pz - riseX * px - riseY * py, lz - riseX * lx - riseY * ly];
  return from > height === to > height ? -1 : (height - from) / (to - from);
}

/** Share of a source that an edge covers, by how far inside of it the middle of the ray passes, metres. */
function covered(inside: number, radius: number): number {
  const soft = Math.max(SHARPEST, radius);
  if (inside <= -soft) return 0;
  return inside >= soft ? 1 : smoothStep(-soft, soft, inside);
}

/** Where a coverage covers anything, fractions of the plate, with a pixel around it. */
export function boundsOf(data: Float32Array, width: number, height: number): Bounds {
  const nowhere = { left: width, top: height, right: 0, bottom: 0 };
  const { left, top, right, bottom } = boxAround(width, height, (i) => data[i] !== 0) ?? nowhere;
  return {
    left: (left - 1) / width,
    right: (right + 1) / width,
    top: (top - 1) / height,
    bottom: (bottom + 1) / height,
  };
}

/**
 * The coverage where a world place is seen from the eye, over a disc.
 *
 * @param z over the eye, metres
 * @param radius of the disc, metres
 */
function seenCoverage(
  of: SeenCoverage,
  { u, v, depth, u0, v0, aspect }: ReturnType<typeof seeing>,
  x: number,
  y: number,
  z: number,
  radius: number,
): number {
  // A plate's width spans this many metres there.
  const span = x * depth[0] + y * depth[1] + z * depth[2];
  if (!(span > 1e-9)) return 0;
  const seenU = (x * u[0] + y * u[1] + z * u[2]) / span - u0;
  const seenV = (x * v[0] + y * v[1] + z * v[2]) / span - v0;
  const soft = radius / span;
  const { left, right, top, bottom } = of.bounds;
  if (seenU < left - soft || seenU > right + soft) return 0;
  if (seenV < top - soft * aspect || seenV > bottom + soft * aspect) return 0;
  return coverageAt(of, seenU, seenV, softLevel(soft * of.width));
}

/** A prefiltered coverage at a place of the plate, between its pixels and levels, its edges held. */
function coverageAt({ width, height, levels }: SeenCoverage, u: number, v: number, level: number): number {
  const x = Math.min(width - 1, Math.max(0, u * width - 0.5));
  const y = Math.min(height - 1, Math.max(0, v * height - 0.5));
  const [x0, y0] = [Math.floor(x), Math.floor(y)];
  const right = x0 + 1 < width ? 1 : 0;
  const below = y0 + 1 < height ? width : 0;
  const at = (plane: number) => {
    const i = plane * width * height + y0 * width + x0;
    const top = levels[i] + (x - x0) * (levels[i + right] - levels[i]);
    const bottom = levels[i + below] + (x - x0) * (levels[i + below + right] - levels[i + below]);
    return top + (y - y0) * (bottom - top);
  };
  const lower = Math.floor(level);
  const first = at(lower);
  return level > lower ? first + (level - lower) * (at(lower + 1) - first) : first;
}
