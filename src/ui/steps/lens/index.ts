import { spikesOf } from '@/core/lens/spikes';
import { isUp } from '@/core/fields/fader-gain';
import type { Scene } from '@/core/scene/schema';
import type { StepInfo } from '../step';
import { LensStep } from './lens-step';
import { LensSurface } from './lens-surface';
import { lensView, type LensView } from './lens-view';

/** What was decided of the lens, in one line. */
function decided({ lens, desk }: Scene): string {
  const parts = [
    ...(isUp(desk.spikes) ? [`${spikesOf(lens).number} spikes`] : []),
    ...(isUp(desk.veil) ? ['veil'] : []),
    ...(lens.grain.iso > 0 ? ['grain'] : []),
  ];
  return parts.length > 0 ? parts.join(', ') : 'clear';
}

export const lens: StepInfo<LensView> = {
  title: 'Lens',
  view: lensView,
  decided,
  Body: LensStep,
  Surface: LensSurface,
};
