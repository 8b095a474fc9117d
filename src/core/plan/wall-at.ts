import { alongRay, project, rayThrough, type Camera, type PlatePoint } from '../geometry/camera';
import { groundPoint } from '../geometry/ground';
import { meetWall, type WallPiece } from './wall-pieces';
import type { Vec3 } from '../geometry/vec3';

/** The nearest wall that a view ray meets, and how far along the ray, in its own lengths; undefined where it meets none. */
export function wallAlong(
  walls: readonly WallPiece[],
  eyeHeight: number,
  ray: Vec3,
): { piece: WallPiece; reach: number } | undefined {
  let reach = Infinity;
  let piece: WallPiece | undefined;
  for (const wall of walls) {
    const own = meetWall(wall, eyeHeight, ray);
    if (own < reach) [reach, piece] = [own, wall];
  }
  return piece && { piece, reach };
}

/** The nearest wall that is seen at a place of the plate, and where on it; undefined where there is none. */
export function wallAt(
  camera: Camera,
  walls: readonly WallPiece[],
  at: PlatePoint,
): { piece: WallPiece; place: Vec3 } | undefined {
  const ray = rayThrough(camera, at);
  const met = wallAlong(walls, camera.eyeHeight, ray);
  return met && { piece: met.piece, place: alongRay(camera, ray, met.reach) };
}

/** The world place that is seen at a place of the plate: on a wall, or on the ground. */
export function placeSeen(camera: Camera, walls: readonly WallPiece[], at: PlatePoint): Vec3 {
  return wallAt(camera, walls, at)?.place ?? groundPoint(camera, at);
}

/**
 * A rectangle between two places of the plate: on a wall where both lie on one, with level and upright sides in the world;
 * else level and upright in the picture.
 */
export function rectangleBetween(
  camera: Camera,
  walls: readonly WallPiece[],
  from: PlatePoint,
  to: PlatePoint,
): PlatePoint[] {
  const plain = [from, { u: to.u, v: from.v }, to, { u: from.u, v: to.v }];
  const [first, last] = [wallAt(camera, walls, from), wallAt(camera, walls, to)];
  if (!first || first.piece !== last?.piece) return plain;
  const [[ax, ay, az], [bx, by, bz]] = [first.place, last.place];
  const corners: Vec3[] = [first.place, [bx, by, az], last.place, [ax, ay, bz]];
  return corners.map((corner, i) => project(camera, corner) ?? plain[i]);
}
