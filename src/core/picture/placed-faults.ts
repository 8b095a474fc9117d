import { horizonAt } from '../geometry/ground';
import { groundOf } from '../placed/placed-land';
import { wallAt } from '../plan/wall-at';
import type { Scene } from '../scene/schema';
import { cameraOf } from './camera-of';

/** What of a scene's placed pictures cannot be, in words that say what to do. */
export function placedFaults(scene: Scene): string[] {
  if (scene.placed.length === 0) return [];
  const camera = cameraOf(scene);
  const { walls } = groundOf(camera, scene.plan);
  return scene.placed.flatMap(({ name, foot, hangs }) => {
    if (hangs && wallAt(camera, walls, foot)) return [];
    if (hangs) {
      return [
        `No wall of the ground plan is seen at the foot of ${name}, so it can’t hang there. Drag it onto one.`,
      ];
    }
    const isOver = foot.v <= horizonAt(scene.plan.horizon, foot.u);
    return isOver ? [`The foot of ${name} lies above the horizon. Drag it down to the ground.`] : [];
  });
}
