import { add, cross, dot, normalize, scale, type Vec3 } from './vec3';

/** A place on the plate: fractions of its width and height from the top left. */
export interface PlatePoint {
  u: number;
  v: number;
}

/** What the ground plan says about the eye. */
export interface CameraSettings {
  /** Height of the horizon at the left and right edge, fractions of the plate's height from the top. */
  horizon: { left: number; right: number };
  /** Height of the eye above the ground, metres. */
  eyeHeight: number;
  /** 35 mm equivalent focal length, millimetres. */
  lens: number;
}

/**
 * A pinhole camera. The ray through (u, v) is `corner + u * across + v * down`: not of unit length, and linear in u and
 * v, so that a kernel steps along a row with one addition. Rays are in world axes (x right, y ahead, z up).
 */
export interface Camera {
  eyeHeight: number;
  /** Focal length in plate widths. */
  focal: number;
  /** Plate width over plate height. */
  aspect: number;
  corner: Vec3;
  across: Vec3;
  down: Vec3;
}

/** Width of the film frame that 35 mm equivalents refer to. */
export const FRAME_WIDTH_MM = 36;

/** The camera of a plate whose width is `aspect` times its height. Pitch and roll follow from the horizon. */
export function createCamera(settings: CameraSettings, aspect: number): Camera {
  const focal = settings.lens / FRAME_WIDTH_MM;
  const edge = (u: number, v: number): Vec3 => [u - 0.5, (v - 0.5) / aspect, focal];
  const left = edge(0, settings.horizon.left);
  const right = edge(1, settings.horizon.right);
  const up = normalize(cross(right, left));
  const viewAxis: Vec3 = [0, 0, 1];
  const ahead = normalize(add(viewAxis, scale(up, -dot(viewAxis, up))));
  const side = cross(ahead, up);
  const world = (ray: Vec3): Vec3 => [dot(ray, side), dot(ray, ahead), dot(ray, up)];
  return {
    eyeHeight: settings.eyeHeight,
    focal,
    aspect,
    corner: world(edge(0, 0)),
    across: world([1, 0, 0]),
    down: world([0, 1 / aspect, 0]),
  };
}

/** The world direction through a place on the plate, not of unit length. */
export function rayThrough(camera: Camera, { u, v }: PlatePoint): Vec3 {
  return add(camera.corner, add(scale(camera.across, u), scale(camera.down, v)));
}

/** Where a ray, followed `reach` times its own length from the eye, arrives. */
export function alongRay(camera: Camera, ray: Vec3, reach: number): Vec3 {
  return [ray[0] * reach, ray[1] * reach, camera.eyeHeight + ray[2] * reach];
}

/** The place on the plate at which a world point is seen. Undefined for what lies behind the eye. */
export function project(camera: Camera, point: Vec3): PlatePoint | undefined {
  const offset: Vec3 = [point[0], point[1], point[2] - camera.eyeHeight];
  const normal = cross(camera.across, camera.down);
  const perUnit = dot(offset, normal) / dot(camera.corner, normal);
  if (!(perUnit > 1e-9)) return undefined;
  const inPlane = add(scale(offset, 1 / perUnit), scale(camera.corner, -1));
  return {
    u: dot(inPlane, camera.across) / dot(camera.across, camera.across),
    v: dot(inPlane, camera.down) / dot(camera.down, camera.down),
  };
}
