import type { StepInfo } from '../step';
import { PlacedStep } from './placed-step';
import { PlacedSurface } from './placed-surface';
import { placedView, type PlacedView } from './placed-view';

export const placed: StepInfo<PlacedView> = {
  title: 'Placed pictures',
  view: placedView,
  decided: ({ placed: all }) => all.map(({ name }) => name).join(', ') || 'none',
  keepsMarks: ({ arriving }) => arriving !== undefined,
  Body: PlacedStep,
  Surface: PlacedSurface,
};
