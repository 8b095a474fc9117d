import { wholeRegion } from '@/core/plane/region';
import type { Scene } from '@/core/scene/schema';
import { surveySize } from '../sizes';
import type { Reader } from './readout';

/** The small copy of a scene's plate: its results are there already, or soon made. */
export function smallSpot({ spot }: Reader, scene: Scene) {
  const { width, height } = surveySize(scene.plate);
  return spot({ scene, region: wholeRegion(width, height) });
}
