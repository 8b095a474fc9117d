import { boundPlace } from './bound-place';
import { alongRay, project, rayThrough, type Camera, type PlatePoint } from './camera';
import { groundPoint } from './ground';
import { length, type Vec3 } from './vec3';

/** Nearest that a stalk may stand to the eye, metres. */
export const NEAREST_STALK = 0.3;

/**
 * Where a fixture hangs in the world. Its foot says how far ahead it stands; the drop is the point of that upright
 * plane which is seen at `at`.
 */
export function placeOnStalk(camera: Camera, at: PlatePoint, foot: PlatePoint): Vec3 {
  const ahead = Math.max(NEAREST_STALK, groundPoint(camera, foot)[1]);
  const ray = rayThrough(camera, at);
  return alongRay(camera, ray, ahead / Math.max(ray[1], 1e-6));
}

/** Metres that one plate width spans at a world point, facing the camera. */
export function metresPerWidth(camera: Camera, at: PlatePoint, place: Vec3): number {
  const ray = rayThrough(camera, at);
  const reach = length([place[0], place[1], place[2] - camera.eyeHeight]) / length(ray);
  return reach;
}

/** A foot for a fixture of a known height above the ground: the place that makes its stalk `height` metres long. */
export function footForHeight(camera: Camera, at: PlatePoint, height: number): PlatePoint {
  const ray = rayThrough(camera, at);
  const rise = height - camera.eyeHeight;
  const steep = ray[2] / Math.max(ray[1], 1e-6);
  const ahead = rise * steep > 0 ? Math.min(Math.max(rise / steep, 1.2), 60) : 8;
  const place: Vec3 = [(ray[0] / ray[1]) * ahead, ahead, 0];
  return boundPlace(project(camera, place) ?? { u: at.u, v: 0.95 });
}
