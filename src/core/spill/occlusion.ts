import { smoothStep } from '../matte/key-coverage';
import type { Camera } from '../plan/camera';
import type { Relief } from '../plan/relief';
import type { WallPiece } from '../plan/surfaces';
import { cross, dot, scale, type Vec3 } from '../plan/vec3';
import type { Plane } from '../plane/plane';
import type { Region } from '../plane/region';
import type { PointLight } from './point-light';

/** A standee as light meets it: how far ahead it stands, metres, and its coverage on a copy of the plate. */
export interface StandingCoverage {
  ahead: number;
  coverage: Plane;
}

export interface Occluders {
  walls: readonly WallPiece[];
  standees: readonly StandingCoverage[];
}

/** Share of the way between surface and light at either end in which nothing casts a shadow: a surface is not its own. */
const ENDS = 0.004;

/** A lamp this near to a standee's plane hangs on it, metres. */
const OWN = 0.25;

/** A wall's piece with what does not change from pixel to pixel. `side`: on which side of it the light hangs. */
const readyWall = ({ ax, ay, bx, by, height }: WallPiece, [lx, ly]: PointLight['place']) => {
  const length = Math.hypot(bx - ax, by - ay);
  const [ex, ey] = [(bx - ax) / length, (by - ay) / length];
  return { ax, ay, ex, ey, length, height, side: (lx - ax) * ey - (ly - ay) * ex };
};

/** Where world points are seen, as sums of products: u = (x ux + y uy + z uz) / depth - u0, and so for v. */
function seeing({ across, down, corner }: Camera) {
  const normal = cross(across, down);
  const scaled = (axis: Vec3) => scale(axis, 1 / dot(axis, axis));
  const [u, v] = [scaled(across), scaled(down)];
  const depth = scale(normal, 1 / dot(corner, normal));
  return { u, v, depth, u0: dot(corner, u), v0: dot(corner, v) };
}

/**
 * How much of a small source each place of a region sees past walls and standees, 0 to 1, multiplied into `out`. Edges are
 * soft by the source's size: on an occluder a share t of the way to the light, its disc looks t times as large.
 */
export function occlude(
  out: Float32Array,
  relief: Pick<Relief, 'reach'>,
  camera: Camera,
  region: Region,
  light: PointLight,
  { walls, standees }: Occluders,
): void {
  const { corner, across, down, eyeHeight } = camera;
  const [lx, ly, lz] = light.place;
  const before = standees
    .filter(({ ahead }) => Math.abs(ahead - ly) > OWN)
    .map(({ ahead, coverage }) => ({ ahead, ...bounded(coverage) }));
  const pieces = walls.map((wall) => readyWall(wall, light.place));
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
      let seen = out[i];
      for (const wall of pieces) {
        const side = (px - wall.ax) * wall.ey - (py - wall.ay) * wall.ex;
        // Nothing stands between places on one side.
        if (side * wall.side >= 0) continue;
        const t = side / (side - wall.side);
        if (t < ENDS || t > 1 - ENDS) continue;
        const along = (px + t * (lx - px) - wall.ax) * wall.ex + (py + t * (ly - py) - wall.ay) * wall.ey;
        const inside = Math.min(along, wall.length - along, wall.height - (pz + t * (lz - pz)));
        const soft = Math.max(1e-4, light.radius * t);
        if (inside <= -soft) continue;
        seen *= inside >= soft ? 0 : 1 - smoothStep(-soft, soft, inside);
        if (seen === 0) break;
      }
      for (const { ahead, coverage, left, right, top, bottom } of before) {
        if (seen === 0) break;
        if (py > ahead === ly > ahead) continue;
        const t = (ahead - py) / (ly - py);
        if (!(t > ENDS && t < 1 - ENDS)) continue;
        const [sx, sz] = [px + t * (lx - px), pz + t * (lz - pz) - eyeHeight];
        const depth = sx * sight.depth[0] + ahead * sight.depth[1] + sz * sight.depth[2];
        if (!(depth > 1e-9)) continue;
        const seenU = (sx * sight.u[0] + ahead * sight.u[1] + sz * sight.u[2]) / depth - sight.u0;
        const seenV = (sx * sight.v[0] + ahead * sight.v[1] + sz * sight.v[2]) / depth - sight.v0;
        if (seenU < left || seenU > right || seenV < top || seenV > bottom) continue;
        seen *= 1 - coverageAt(coverage, seenU, seenV);
      }
      out[i] = seen;
    }
  }
}

/** A coverage with the rectangle outside of which it covers nothing, fractions of the plate. */
function bounded(coverage: Plane) {
  const { width, height, data } = coverage;
  let [left, top, right, bottom] = [width, height, -1, -1];
  for (let i = 0; i < data.length; i++) {
    if (data[i] === 0) continue;
    const [x, y] = [i % width, Math.floor(i / width)];
    [left, right] = [Math.min(left, x), Math.max(right, x)];
    [top, bottom] = [Math.min(top, y), Math.max(bottom, y)];
  }
  return {
    coverage,
    left: (left - 1) / width,
    right: (right + 2) / width,
    top: (top - 1) / height,
    bottom: (bottom + 2) / height,
  };
}

/** A coverage at a place of the plate, bilinear, its edges held. */
function coverageAt({ width, height, data }: Plane, u: number, v: number): number {
  const x = Math.min(width - 1, Math.max(0, u * width - 0.5));
  const y = Math.min(height - 1, Math.max(0, v * height - 0.5));
  const x0 = Math.floor(x);
  const i = Math.floor(y) * width + x0;
  const right = x0 + 1 < width ? 1 : 0;
  const below = i + width < data.length ? width : 0;
  const top = data[i] + (x - x0) * (data[i + right] - data[i]);
  const bottom = data[i + below] + (x - x0) * (data[i + below + right] - data[i + below]);
  return top + (y - Math.floor(y)) * (bottom - top);
}
