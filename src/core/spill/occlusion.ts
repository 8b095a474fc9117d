import { smoothStep } from '../matte/key-coverage';
import { project, type Camera } from '../plan/camera';
import type { Relief } from '../plan/relief';
import type { WallPiece } from '../plan/surfaces';
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
  const before = standees.filter(({ ahead }) => Math.abs(ahead - ly) > OWN);
  for (let y = 0, i = 0; y < region.height; y++) {
    const v = (region.top + y + 0.5) / region.fullHeight;
    for (let x = 0; x < region.width; x++, i++) {
      if (out[i] === 0) continue;
      const u = (region.left + x + 0.5) / region.fullWidth;
      const reach = relief.reach[i];
      const px = (corner[0] + u * across[0] + v * down[0]) * reach;
      const py = (corner[1] + u * across[1] + v * down[1]) * reach;
      const pz = (corner[2] + u * across[2] + v * down[2]) * reach + eyeHeight;
      const dx = lx - px;
      const dy = ly - py;
      const dz = lz - pz;
      let seen = out[i];
      for (const { ax, ay, bx, by, height } of walls) {
        const ex = bx - ax;
        const ey = by - ay;
        const turn = dx * ey - dy * ex;
        if (Math.abs(turn) < 1e-9) continue;
        const t = ((ax - px) * ey - (ay - py) * ex) / turn;
        if (t < ENDS || t > 1 - ENDS) continue;
        const s = ((ax - px) * dy - (ay - py) * dx) / turn;
        const wide = Math.hypot(ex, ey);
        const inside = Math.min(s * wide, (1 - s) * wide, height - (pz + t * dz));
        const soft = Math.max(1e-4, light.radius * t);
        if (inside <= -soft) continue;
        seen *= 1 - smoothStep(-soft, soft, inside);
        if (seen === 0) break;
      }
      for (const { ahead, coverage } of before) {
        if (seen === 0) break;
        const t = (ahead - py) / dy;
        if (!(t > ENDS && t < 1 - ENDS)) continue;
        const at = project(camera, [px + t * dx, ahead, pz + t * dz]);
        if (at) seen *= 1 - coverageAt(coverage, at.u, at.v);
      }
      out[i] = seen;
    }
  }
}

/** A coverage at a place of the plate, bilinear; nothing outside it. */
function coverageAt({ width, height, data }: Plane, u: number, v: number): number {
  const x = u * width - 0.5;
  const y = v * height - 0.5;
  if (!(x > -1 && y > -1 && x < width && y < height)) return 0;
  const x0 = Math.floor(x);
  const y0 = Math.floor(y);
  const at = (i: number, j: number) =>
    i < 0 || j < 0 || i >= width || j >= height ? 0 : data[j * width + i];
  const top = at(x0, y0) + (x - x0) * (at(x0 + 1, y0) - at(x0, y0));
  const bottom = at(x0, y0 + 1) + (x - x0) * (at(x0 + 1, y0 + 1) - at(x0, y0 + 1));
  return top + (y - y0) * (bottom - top);
}
