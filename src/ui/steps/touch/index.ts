import type { StepInfo } from '../step';
import { TouchStep } from './touch-step';
import { TouchSurface } from './touch-surface';
import { touchView, type TouchView } from './touch-view';

export const touch: StepInfo<TouchView> = {
  title: 'Touch',
  view: touchView,
  decided({ touches, drifts }) {
    const strokes = touches.reduce((sum, one) => sum + one.strokes.length, 0);
    const parts = [
      ...(strokes > 0 ? [`${strokes} stroke${strokes === 1 ? '' : 's'}`] : []),
      ...(drifts.length > 0 ? [`${drifts.length} drift${drifts.length === 1 ? '' : 's'}`] : []),
    ];
    return parts.join(', ') || 'none';
  },
  Body: TouchStep,
  Surface: TouchSurface,
  drawsLive: true,
};
