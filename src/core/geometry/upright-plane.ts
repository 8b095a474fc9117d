import { alongRay, rayThrough, type Camera, type PlatePoint } from './camera';
import { NEAREST_STALK } from './place-on-stalk';
import { cross, dot, type Vec3 } from './vec3';

/** An upright plane in the world: a point of it, and its level normal, of unit length, which faces the eye. */
export interface UprightPlane {
  point: Vec3;
  normal: Vec3;
}

/** Least cosine between a view ray and a plane's normal: beyond it the plane is seen from its edge. */
const EDGE_ON = 0.02;

/** What is nearer than this, in lengths of a ray, is not seen. */
const NEAREST = 1e-9;

/** Farthest that a plane is followed, in lengths of a ray. */
const FARTHEST = 4000;

/** The world place on a plane that is seen at a place of the plate. Where the plane is seen from its edge it is held. */
export function onPlane(camera: Camera, { point, normal }: UprightPlane, at: PlatePoint): Vec3 {
  const ray = rayThrough(camera, at);
  const toward = dot(ray, normal);
  const reach = Math.max(
    NEAREST_STALK,
    dot([point[0], point[1], point[2] - camera.eyeHeight], normal) / Math.min(-EDGE_ON, toward),
  );
  return alongRay(camera, ray, Math.min(reach, FARTHEST));
}

/** The level direction along a plane, to the right where it faces the eye. */
export const alongOf = ({ normal }: Pick<UprightPlane, 'normal'>): Vec3 => [-normal[1], normal[0], 0];

/**
 * Where places of a plane are seen on the plate: so far along it from its point, and so high over the ground, metres. What
 * lies behind the eye is not seen. A homography, prepared once.
 */
export function planeToPlate(
  camera: Camera,
  plane: UprightPlane,
): (along: number, up: number) => PlatePoint | undefined {
  const { across, down, corner, eyeHeight } = camera;
  const axis = cross(across, down);
  const unit = dot(corner, axis);
  const origin: Vec3 = [plane.point[0], plane.point[1], -eyeHeight];
  const row = (of: Vec3, by: number) =>
    [dot(alongOf(plane), of) / by, of[2] / by, dot(origin, of) / by] as const;
  const [ws, wt, w0] = row(axis, unit);
  const [us, ut, u0] = row(across, dot(across, across));
  const [vs, vt, v0] = row(down, dot(down, down));
  const [uCorner, vCorner] = [dot(corner, across) / dot(across, across), dot(corner, down) / dot(down, down)];
  return (along, up) => {
    const away = ws * along + wt * up + w0;
    if (!(away > NEAREST)) return undefined;
    return {
      u: (us * along + ut * up + u0) / away - uCorner,
      v: (vs * along + vt * up + v0) / away - vCorner,
    };
  };
}
