import { litShare } from '@/core/sky/moon-disc';
import { RANGES } from '@/core/fields/ranges';
import type { Scene } from '@/core/scene/schema';
import type { StepInfo } from '../step';
import { SkyStep } from './sky-step';
import { SkySurface } from './sky-surface';
import { skyView, type SkyView } from './sky-view';

/** What was decided of the sky, in one line. */
function decided({ sky, desk }: Scene): string {
  if (sky.from === 'plate') return 'as in the plate';
  const parts = [
    sky.clouds.cover > 0 ? `clouds ${Math.round(100 * sky.clouds.cover)} %` : 'clear',
    ...(desk.stars > RANGES.level.min ? [sky.stars.from === 'true' ? 'true stars' : 'stars'] : []),
    ...(desk.moon > RANGES.level.min ? [`moon ${Math.round(100 * litShare(sky.moon.phase))} %`] : []),
  ];
  return parts.join(', ');
}

export const sky: StepInfo<SkyView> = {
  title: 'Sky',
  view: skyView,
  decided,
  Body: SkyStep,
  Surface: SkySurface,
};
