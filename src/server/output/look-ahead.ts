import { wholeRegion } from '@/core/plane/region';
import type { Scene } from '@/core/scene/schema';
import type { Renderer } from '@/engine/renderer';
import { LEAST_SIDE, surveySize } from '@/engine/sizes';

/**
 * Finds in a scene what a window will ask for as soon as it opens it, while the window still loads: a corner of a frame needs all that is
 * found on the small copy. Nobody waits for it; what goes wrong goes wrong again in the window, which says so.
 */
export async function lookAhead(renderer: Renderer, scene: Scene): Promise<void> {
  const { width, height } = surveySize(scene.plate);
  const region = { ...wholeRegion(width, height), width: LEAST_SIDE, height: LEAST_SIDE };
  await renderer
    .frame({ scene, region }, new AbortController().signal, () => undefined)
    .catch(() => undefined);
}
