import type { StepInfo } from '../step';
import { TouchStep } from './touch-step';
import { TouchSurface } from './touch-surface';
import { touchView, type TouchView } from './touch-view';

export const touch: StepInfo<TouchView> = {
  title: 'Touch',
  view: touchView,
  decided({ touches }) {
    const strokes = touches.reduce((sum, one) => sum + one.strokes.length, 0);
    return strokes === 0 ? 'none' : `${strokes} stroke${strokes === 1 ? '' : 's'} by hand`;
  },
  Body: TouchStep,
  Surface: TouchSurface,
  drawsLive: true,
};
