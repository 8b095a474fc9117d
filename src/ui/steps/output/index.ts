import { framedSize } from '@/core/frame/frame';
import type { StepInfo } from '../step';
import { OutputStep } from './output-step';
import { OutputSurface } from './output-surface';
import { outputView, type OutputView } from './output-view';

export const output: StepInfo<OutputView> = {
  title: 'Output',
  view: outputView,
  decided: ({ plate, frame }) => {
    const { width, height } = framedSize(plate, frame);
    return `${width} × ${height}`;
  },
  Body: OutputStep,
  Surface: OutputSurface,
};
