import type { Camera } from '../geometry/camera';
import { seeing } from '../light/occlusion';
import type { Relief } from '../relief/relief-planes';
import { hypot } from '../plane/hypot';

/** What each pixel of a copy of the plate sees in itself as a mirror. */
export interface MirrorMap {
  /** The place of the plate that is seen there, fractions; it may lie a little outside. */
  u: Float32Array;
  v: Float32Array;
  /** Share of the way from the eye over the mirror that lies behind the mirror: 0 close to it, 1 endlessly far. */
  behind: Float32Array;
  /** Whether it mirrors at all, 0 or 1. */
  weight: Float32Array;
  /** As `behind` where what mirrors is taken for level, so that ripples have yet to shift what is seen in it; else 0. */
  ripples: Float32Array;
}

/** From here on a surface counts as level, cosine between its normal and the vertical; it mirrors as if it were wholly so. */
const LEVEL = 0.7;

/** Up to here it counts as upright. Slopes between mirror as they lie. */
const UPRIGHT = 0.3;

/** Where a mirrored ray is looked at: metres from the mirror to the first place, ratio from one to the next, and how many. */
const STEPS = { first: 0.15, ratio: 1.22, count: 40 } as const;

/** Least depth of a direction: beside the eye the sky lies endlessly far outside of the picture. */
const FLAT = 1e-3;

/** How far beyond the picture's edge a mirrored place may lie and still be read at the edge, fraction. */
const BEYOND = 0.5;

const held = (value: number) => Math.min(1 + BEYOND, Math.max(-BEYOND, value));

type Land = Pick<Relief, 'reach' | 'normalX' | 'normalY' | 'normalZ' | 'land' | 'sheen'>;

/**
 * Follows the ray from the eye over each pixel that shines to what it meets: upright land nearer than it, or else the sky. The land is
 * the relief itself, as it pops up. What lies behind the eye is taken to look like what lies before it.
 *
 * @param out planes of the relief's size, filled anew; `facing`: cosine between the mirror's normal and the view
 * @param relief of a whole copy of the plate
 * @param exact coverage by what mirrors just as its normals say, neither level nor upright
 */
export function mirrorMap(
  out: MirrorMap & { facing: Float32Array },
  relief: Land,
  camera: Camera,
  width: number,
  height: number,
  exact?: Float32Array,
): void {
  const { corner, across, down } = camera;
  const { land, sheen, reach, normalX, normalY, normalZ } = relief;
  const follow = createFollower(relief, camera, width, height);
  const seen = new Float64Array(3);
  for (let y = 0, i = 0; y < height; y++) {
    const v = (y + 0.5) / height;
    for (let x = 0; x < width; x++, i++) {
      out.weight[i] = 0;
      if (sheen[i] === 0 || land[i] < 0.5) continue;
      const u = (x + 0.5) / width;
      const rx = corner[0] + u * across[0] + v * down[0];
      const ry = corner[1] + u * across[1] + v * down[1];
      const rz = corner[2] + u * across[2] + v * down[2];
      const isExact = exact !== undefined && exact[i] >= 0.5;
      const isLevel = !isExact && normalZ[i] > LEVEL;
      const isUpright = !isExact && Math.abs(normalZ[i]) <= UPRIGHT;
      // Ceilings mirror nothing here.
      if (!isExact && !isLevel && !isUpright && normalZ[i] < 0) continue;
      const long = isUpright ? hypot(normalX[i], normalY[i]) : hypot(normalX[i], normalY[i], normalZ[i]);
      const nx = isLevel ? 0 : normalX[i] / long;
      const ny = isLevel ? 0 : normalY[i] / long;
      const nz = isLevel ? 1 : isUpright ? 0 : normalZ[i] / long;
      const toward = rx * nx + ry * ny + rz * nz;
      if (toward >= 0) continue;
      const way = hypot(rx, ry, rz);
      const [dx, dy, dz] = [rx - 2 * toward * nx, ry - 2 * toward * ny, rz - 2 * toward * nz];
      follow(seen, rx * reach[i], ry * reach[i], rz * reach[i], dx / way, dy / way, dz / way);
      out.u[i] = held(seen[0]);
      out.v[i] = held(seen[1]);
      out.behind[i] = seen[2];
      out.ripples[i] = isLevel ? seen[2] : 0;
      out.facing[i] = -toward / way;
      out.weight[i] = 1;
    }
  }
}

/** Prepares what follows a ray from a place, both from the eye: the place that it meets, and how much of the way lies behind. */
function createFollower({ reach, normalZ, land }: Land, camera: Camera, width: number, height: number) {
  const {
    u: [ux, uy, uz],
    v: [vx, vy, vz],
    depth: [zx, zy, zz],
    u0,
    v0,
  } = seeing(camera);
  const { corner, across, down } = camera;
  return (
    out: Float64Array,
    fx: number,
    fy: number,
    fz: number,
    dx: number,
    dy: number,
    dz: number,
  ): void => {
    const way = hypot(fx, fy, fz);
    let step: number = STEPS.first;
    const away = dx * zx + dy * zy + dz * zz;
    const isBack = away < 0;
    for (let k = 0; k < STEPS.count; k++, step *= STEPS.ratio) {
      const [px, py, pz] = [fx + dx * step, fy + dy * step, fz + dz * step];
      const depth = px * zx + py * zy + pz * zz;
      if (depth <= 1e-6) break;
      const u = (px * ux + py * uy + pz * uz) / depth - u0;
      const v = (px * vx + py * vy + pz * vz) / depth - v0;
      out[0] = u;
      out[1] = v;
      out[2] = step / (step + way);
      const isOut = u < 0 || u >= 1 || v < 0 || v >= 1;
      if (isOut && isBack) break;
      if (isOut) return;
      const i = Math.floor(v * height) * width + Math.floor(u * width);
      if (land[i] < 0.5 || normalZ[i] > LEVEL) continue;
      // How often the pixel's own ray, which reaches its surface at `reach`, goes into the way to here.
      if (py >= reach[i] * (corner[1] + u * across[1] + v * down[1])) return;
    }
    // Behind the eye: turned to where it would be before it.
    const turn = isBack ? (2 * away) / (zx * zx + zy * zy + zz * zz) : 0;
    const [sx, sy, sz] = [dx - turn * zx, dy - turn * zy, dz - turn * zz];
    const depth = Math.max(FLAT, Math.abs(away));
    out[0] = (sx * ux + sy * uy + sz * uz) / depth - u0;
    out[1] = (sx * vx + sy * vy + sz * vz) / depth - v0;
    out[2] = 1;
  };
}
