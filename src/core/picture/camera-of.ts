import { createCamera, type Camera } from '../geometry/camera';
import type { Scene } from '../scene/schema';

/** The camera of a scene's ground plan. */
export function cameraOf({
  plan,
  plate,
}: Pick<Scene, 'plan'> & { plate: { width: number; height: number } }): Camera {
  return createCamera(plan, plate.width / plate.height);
}
