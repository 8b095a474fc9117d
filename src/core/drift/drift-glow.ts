import { rayThrough, alongRay, type Camera } from '../geometry/camera';
import { dot, type Vec3 } from '../geometry/vec3';
import { belowCutoff, NO_CUTOFF, type PointLight } from '../light/point-light';
import { betweenPixels } from '../plane/between-pixels';
import type { Plane } from '../plane/plane';
import type { Region } from '../plane/region';
import { driftAhead } from './drift-cover';
import type { Drift } from './drift-schema';

/** Places a side at which a drift's light is found; between them it is smooth. */
const GRID = 40;

/** Least distance to a light inside of a drift, metres: it has some depth there. */
const NEAREST = 0.35;

/** Share of the light on smoke that it sends on, evenly to all sides. */
const ALBEDO = 0.9;

/** Luminous intensity of a light toward a place, candela. `away`: from the light to the place. */
function candelaToward(light: PointLight, away: Vec3, distance: number): number {
  const { facing, focus = 0, even = 0, cutoff = NO_CUTOFF, spillCandela } = light;
  if (!facing) return spillCandela;
  let ahead = Math.max(0, dot(facing, away) / distance);
  for (let k = 0; k < focus; k++) ahead *= ahead;
  return spillCandela * (even + ahead * belowCutoff(cutoff, away[2] / distance));
}

/**
 * Luminance of a thick drift under some lights, cd/m2, at places all over it: single scattering, `albedo * I / (4 pi d^2)`. What stands
 * between is not looked at.
 *
 * @returns a square of values over the drift's box: from its left to its right, and as far up and down as it is tall
 */
export function driftGlow(camera: Camera, drift: Drift, lights: readonly PointLight[]): Plane {
  const { at, size, tall } = drift;
  const ahead = driftAhead(camera, drift);
  const data = new Float32Array(GRID * GRID);
  for (let j = 0, i = 0; j < GRID; j++) {
    for (let k = 0; k < GRID; k++, i++) {
      const u = at.u + size * ((2 * (k + 0.5)) / GRID - 1);
      const v = at.v + size * tall * camera.aspect * ((2 * (j + 0.5)) / GRID - 1);
      const ray = rayThrough(camera, { u, v });
      const place = alongRay(camera, ray, ahead / Math.max(1e-3, ray[1]));
      for (const light of lights) {
        const away: Vec3 = [place[0] - light.place[0], place[1] - light.place[1], place[2] - light.place[2]];
        const square = dot(away, away) + NEAREST ** 2 + light.radius ** 2;
        const candela = candelaToward(light, away, Math.sqrt(square));
        data[i] += (ALBEDO * candela) / (4 * Math.PI * square);
      }
    }
  }
  return { width: GRID, height: GRID, data };
}

/** Adds a drift's own light over what lies behind it: `out` is held back by what it covers, and its glow comes before it. */
export function layGlow(
  out: Float32Array,
  cover: Float32Array,
  glow: Plane,
  { at, size, tall }: Drift,
  aspect: number,
  region: Region,
): void {
  for (let y = 0, i = 0; y < region.height; y++) {
    const v = (region.top + y + 0.5) / region.fullHeight;
    const down = (((v - at.v) / (size * tall * aspect) + 1) * glow.height) / 2 - 0.5;
    for (let x = 0; x < region.width; x++, i++) {
      if (cover[i] === 0) continue;
      const u = (region.left + x + 0.5) / region.fullWidth;
      const across = (((u - at.u) / size + 1) * glow.width) / 2 - 0.5;
      out[i] += cover[i] * (betweenPixels(glow, across, down) - out[i]);
    }
  }
}
