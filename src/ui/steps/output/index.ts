import { framedSize } from '@/core/frame/frame';
import type { StepInfo } from '../step';
import { OutputStep } from './output-step';
import { OutputSurface } from './output-surface';

export const output: StepInfo = {
  title: 'Output',
  view: { initial: {} },
  decided: ({ plate, frame }) => {
    const { width, height } = framedSize(plate, frame);
    return `${width} × ${height}`;
  },
  Body: OutputStep,
  Surface: OutputSurface,
};
