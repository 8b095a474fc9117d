import { project, type Camera, type PlatePoint } from '@/core/geometry/camera';
import { groundPoint } from '@/core/geometry/ground';
import type { GroundPlan } from '@/core/scene/schema';

/** A wall as a frame: its foot, its top, and an upright at every corner. */
export function wallPath(
  camera: Camera,
  { foot, height }: GroundPlan['walls'][number],
  place: (at: PlatePoint) => string,
): string {
  const tops = foot.map((at) => {
    const [x, y] = groundPoint(camera, at);
    return project(camera, [x, y, height]) ?? at;
  });
  const uprights = foot.map((at, i) => `M${place(at)}L${place(tops[i])}`).join('');
  return `M${foot.map(place).join('L')}M${tops.map(place).join('L')}${uprights}`;
}
