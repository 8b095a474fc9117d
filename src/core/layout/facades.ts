import { horizonAt } from '../geometry/ground';
import { rayThrough, type Camera, type CameraSettings, type PlatePoint } from '../geometry/camera';
import type { UprightPlane } from '../geometry/upright-plane';
import type { Vec3 } from '../geometry/vec3';
import { wallAt } from '../plan/wall-at';
import type { WallPiece } from '../plan/wall-pieces';
import { hypot } from '../plane/hypot';

/** A plane on which a window may lie, and whether it is known how far away it is. */
export interface Facade extends UprightPlane {
  known: boolean;
}

/** How far ahead a plane is taken to be of which only the facing is tried, metres. */
const AHEAD = 10;

/**
 * The planes on which what is seen at a place may lie: the wall that is said there; then planes along the plate's level directions and one
 * that faces the eye, of which the distance is not known.
 *
 * @param level where level directions meet the horizon, fractions of the width
 */
export function facadesAt(
  camera: Camera,
  horizon: CameraSettings['horizon'],
  walls: readonly WallPiece[],
  level: readonly number[],
  at: PlatePoint,
): Facade[] {
  const ray = rayThrough(camera, at);
  const point: Vec3 = [(ray[0] / ray[1]) * AHEAD, AHEAD, 0];
  const facing = (x: number, y: number): Vec3 => {
    const length = hypot(x, y);
    const [nx, ny] = [y / length, -x / length];
    return nx * point[0] + ny * point[1] > 0 ? [-nx, -ny, 0] : [nx, ny, 0];
  };
  const tried = level.map((u) => {
    const [x, y] = rayThrough(camera, { u, v: horizonAt(horizon, u) });
    return facing(x, y);
  });
  const hit = wallAt(camera, walls, at);
  const said: Facade[] = hit
    ? [{ point: hit.place, normal: [hit.piece.normalX, hit.piece.normalY, 0], known: true }]
    : [];
  const toEye: Vec3 = [0, -1, 0];
  return [...said, ...[...tried, toEye].map((normal) => ({ point, normal, known: false }))];
}
