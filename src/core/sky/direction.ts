import { alongRay, project, rayThrough, type Camera, type PlatePoint } from '../geometry/camera';
import { cross, normalize, type Vec3 } from '../geometry/vec3';
import { hypot } from '../plane/hypot';

const DEGREE = Math.PI / 180;

/** Where something stands in the sky: degrees to the right of where the eye looks, and over the horizon. */
export interface SkyPlace {
  azimuth: number;
  elevation: number;
}

/** The unit vector toward a place of the sky, world axes: x right, y ahead, z up. */
export function skyDirection({ azimuth, elevation }: SkyPlace): Vec3 {
  const level = Math.cos(elevation * DEGREE);
  return [
    level * Math.sin(azimuth * DEGREE),
    level * Math.cos(azimuth * DEGREE),
    Math.sin(elevation * DEGREE),
  ];
}

/** The place of the sky that lies in a direction of any length. */
export function skyPlace([x, y, z]: Vec3): SkyPlace {
  return { azimuth: Math.atan2(x, y) / DEGREE, elevation: Math.atan2(z, hypot(x, y)) / DEGREE };
}

/** The place of the sky that is seen at a place of the plate; below the horizon its elevation is negative. */
export const skyPlaceAt = (camera: Camera, at: PlatePoint): SkyPlace => skyPlace(rayThrough(camera, at));

/** The unit vector toward what is seen at a place of the plate. */
export const directionAt = (camera: Camera, at: PlatePoint): Vec3 => normalize(rayThrough(camera, at));

/** Where a direction is seen on the plate, however far outside. Undefined for what lies behind the eye. */
export const projectDirection = (camera: Camera, direction: Vec3): PlatePoint | undefined =>
  project(camera, alongRay(camera, direction, 1));

/** Unit vectors to the right of a direction and above it, as an eye that looks there with a level head has them. */
export function besideDirection(toward: Vec3): { side: Vec3; up: Vec3 } {
  const level: Vec3 = Math.abs(toward[2]) > 0.999 ? [0, 1, 0] : [0, 0, 1];
  const side = normalize(cross(toward, level));
  return { side, up: cross(side, toward) };
}
