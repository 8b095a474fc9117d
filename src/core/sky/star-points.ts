import type { Camera, PlatePoint } from '../geometry/camera';
import { skyPlace, projectDirection } from './direction';
import { add, cross, dot, scale, type Vec3 } from '../geometry/vec3';
import { smoothStep } from '../plane/smooth-step';
import { transmission } from './air-mass';
import type { Star } from './scattered-stars';
import { createStarColors, starClass } from './star-color';

/** How stars are shown. */
export interface StarLook {
  /** Factor on each class of colours, the hottest first. */
  colors: readonly number[];
  /** Breadth of a star's image (sigma), a fraction of the picture's width. */
  size: number;
  /** For how long they are drawn out as the sky turns, minutes. */
  trail: number;
  /** A line on the picture below which there are none: a place on it, its tilt in degrees, and how broad the change is. */
  fall: PlatePoint & { turn: number; soft: number };
  /** Which way the sky turns: toward the pole in the world, unit vector. */
  pole: Vec3;
}

/** Illuminance of a star of magnitude 0, lux. */
export const LUX_OF_MAGNITUDE_0 = 2.54e-6;

/** Floats of a point: place on the plate, and light in lux, linear sRGB. */
export const POINT_STRIDE = 5;

/** Most points of all stars together: long trails of faint stars end there. */
export const MOST_POINTS = 120_000;

/** How far the sky turns in a minute, radians. */
const TURN_A_MINUTE = (2 * Math.PI) / (23.934 * 60);

/** How far outside the picture a star may stand and still reach into it. */
const MARGIN = 0.02;

/** Turns a vector about an axis (Rodrigues). */
function turned(vector: Vec3, axis: Vec3, angle: number): Vec3 {
  const [cos, sin] = [Math.cos(angle), Math.sin(angle)];
  const aside = cross(axis, vector);
  const along = dot(axis, vector) * (1 - cos);
  return add(add(scale(vector, cos), scale(aside, sin)), scale(axis, along));
}

/** How much of the stars a place of the plate shows: 0 below the fall-off's line, 1 above it. */
function aboveFall({ u, v }: PlatePoint, { fall }: Pick<StarLook, 'fall'>, aspect: number): number {
  const turn = (fall.turn * Math.PI) / 180;
  const above = ((fall.v - v) * Math.cos(turn)) / aspect + (u - fall.u) * Math.sin(turn);
  return smoothStep(-fall.soft / 2, fall.soft / 2, above);
}

/**
 * The points of light that stars draw on a plate, dimmed by the air (fewer toward the horizon by itself) and by the fall-off. A star that
 * is drawn out is many points that share its light.
 *
 * @param out POINT_STRIDE floats a point, for MOST_POINTS
 * @returns how many points
 */
export function starPoints(
  out: Float32Array,
  camera: Camera,
  stars: readonly Star[],
  look: StarLook,
  colorOf = createStarColors(),
): number {
  const swing = look.trail * TURN_A_MINUTE;
  const spacing = Math.max(look.size, 2e-4) / camera.focal;
  const steps = Math.max(1, Math.ceil(swing / spacing));
  let count = 0;
  for (const { toward, magnitude, bv } of stars) {
    if (count + steps > MOST_POINTS) break;
    const strength = look.colors[starClass(bv)];
    if (toward[2] < -0.02 && steps === 1) continue;
    const color = colorOf(bv);
    const light = (strength * LUX_OF_MAGNITUDE_0 * 10 ** (-0.4 * magnitude)) / steps;
    for (let k = 0; k < steps; k++) {
      const now = steps === 1 ? toward : turned(toward, look.pole, -swing * (k / (steps - 1) - 0.5));
      if (now[2] <= 0 || light === 0) continue;
      const at = projectDirection(camera, now);
      if (!at || at.u < -MARGIN || at.u > 1 + MARGIN || at.v < -MARGIN || at.v > 1 + MARGIN) continue;
      const left = light * transmission(skyPlace(now).elevation) * aboveFall(at, look, camera.aspect);
      if (left <= 0) continue;
      out.set([at.u, at.v, left * color[0], left * color[1], left * color[2]], count * POINT_STRIDE);
      count++;
    }
  }
  return count;
}
