import { alongRay, project, rayThrough, type Camera, type PlatePoint } from '../geometry/camera';
import { groundPoint } from '../geometry/ground';
import { meetWall, type WallPiece } from './wall-pieces';
import type { Vec3 } from '../geometry/vec3';

/** The nearest wall that is seen at a place of the plate, and where on it; undefined where there is none. */
export function wallAt(
  camera: Camera,
  walls: readonly WallPiece[],
  at: PlatePoint,
): { piece: WallPiece; place: Vec3 } | undefined {
  const ray = rayThrough(camera, at);
  let met = Infinity;
  let piece: WallPiece | undefined;
  for (const wall of walls) {
    const reach = meetWall(wall, camera.eyeHeight, ray);
    if (reach < met) [met, piece] = [reach, wall];
  }
  return piece && { piece, place: alongRay(camera, ray, met) };
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
