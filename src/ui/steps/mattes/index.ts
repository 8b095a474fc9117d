import type { StepInfo } from '../step';
import { MattesStep } from './mattes-step';
import { MattesSurface } from './mattes-surface';

export const mattes: StepInfo = {
  title: 'Mattes',
  decided: ({ mattes }) => mattes.map(({ name }) => name.toLowerCase()).join(', ') || 'none',
  Body: MattesStep,
  Surface: MattesSurface,
  drawsLive: true,
};
