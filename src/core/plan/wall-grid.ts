import { project, type Camera } from '../geometry/camera';
import type { GridLine } from '../geometry/ground-grid';
import type { WallPiece } from './wall-pieces';
import type { Vec3 } from '../geometry/vec3';
import { hypot } from '../plane/hypot';

/** Most lines each way on one piece of a wall. */
const MOST = 24;

/** A line this near to the wall's own edge is left out, metres. */
const EDGE = 0.05;

/** A grid of one metre on walls, coarser on large ones, as lines of the plate. */
export function wallGrid(camera: Camera, walls: readonly WallPiece[]): GridLine[] {
  const lines: GridLine[] = [];
  for (const { ax, ay, bx, by, height } of walls) {
    const long = hypot(bx - ax, by - ay);
    const at = (along: number, up: number): Vec3 => [
      ax + ((bx - ax) * along) / long,
      ay + ((by - ay) * along) / long,
      up,
    ];
    const push = (a: Vec3, b: Vec3) => {
      const [from, to] = [project(camera, a), project(camera, b)];
      if (from && to) lines.push([from, to]);
    };
    const step = (size: number) => Math.max(1, Math.ceil(size / MOST));
    for (let x = step(long); x < long - EDGE; x += step(long)) push(at(x, 0), at(x, height));
    for (let z = step(height); z < height - EDGE; z += step(height)) push(at(0, z), at(long, z));
  }
  return lines;
}
