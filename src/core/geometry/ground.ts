import { alongRay, rayThrough, type Camera, type PlatePoint } from './camera';
import type { Vec3 } from './vec3';

/** Height of the horizon of a photo of which nothing is said yet, as a fraction of its height. */
export const UNSAID_HORIZON = 0.5;

/** Whether a horizon is that of a photo of which nothing is said yet. */
export const isUnsaid = ({ left, right }: { left: number; right: number }): boolean =>
  left === UNSAID_HORIZON && right === UNSAID_HORIZON;

/** Beyond this the ground is as good as the horizon, metres. */
export const FARTHEST_GROUND = 2000;

/**
 * The world point of the ground seen at a place on the plate. At and above the horizon, and beyond FARTHEST_GROUND,
 * the ground is held at that distance, so that a result always exists.
 */
export function groundPoint(camera: Camera, at: PlatePoint): Vec3 {
  const ray = rayThrough(camera, at);
  const reach = ray[2] < 0 ? -camera.eyeHeight / ray[2] : Infinity;
  const ahead = Math.max(ray[1], 1e-6);
  const [x, y] = alongRay(camera, ray, Math.min(reach, FARTHEST_GROUND / ahead));
  return [x, y, 0];
}

/** Height of the horizon at a column of the plate, as a fraction of the plate's height. */
export function horizonAt(horizon: { left: number; right: number }, u: number): number {
  return horizon.left + u * (horizon.right - horizon.left);
}
