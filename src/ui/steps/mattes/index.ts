import type { StepInfo } from '../step';
import { mattesView, type MattesView } from './mattes-view';
import { MattesStep } from './mattes-step';
import { MattesSurface } from './mattes-surface';

export const mattes: StepInfo<MattesView> = {
  title: 'Mattes',
  view: mattesView,
  decided: ({ mattes }) => mattes.map(({ name }) => name.toLowerCase()).join(', ') || 'none',
  Body: MattesStep,
  Surface: MattesSurface,
  drawsLive: true,
};
