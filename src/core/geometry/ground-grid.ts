import { project, type Camera, type PlatePoint } from './camera';
import type { Vec3 } from './vec3';

/** Lines of a square grid that lies on the ground, each as two places on the plate. */
export type GridLine = readonly [PlatePoint, PlatePoint];

/**
 * A perspective grid of `step` metres, `reach` metres deep and as wide to either side, drawn from the nearest metre in
 * view. Points may fall outside the plate; the caller clips.
 */
export function groundGrid(camera: Camera, step: number, reach: number): GridLine[] {
  const near = Math.max(0.6, camera.eyeHeight * 0.6);
  const lines: GridLine[] = [];
  const push = (a: Vec3, b: Vec3) => {
    const from = project(camera, a);
    const to = project(camera, b);
    if (from && to) lines.push([from, to]);
  };
  for (let y = Math.ceil(near / step) * step; y <= reach; y += step) push([-reach, y, 0], [reach, y, 0]);
  for (let x = -reach; x <= reach; x += step) push([x, near, 0], [x, reach, 0]);
  return lines;
}
