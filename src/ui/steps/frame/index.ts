import { framedSize, isWholeFrame } from '@/core/frame/frame';
import type { StepInfo } from '../step';
import { frameView, type FrameView } from './frame-view';
import { FrameStep } from './frame-step';
import { FrameSurface } from './frame-surface';

export const frame: StepInfo<FrameView> = {
  title: 'Frame',
  view: frameView,
  decided: ({ frame, plate }) => {
    if (isWholeFrame(frame)) return 'the whole plate';
    const { width, height } = framedSize(plate, frame);
    return `${width} × ${height}${frame.angle === 0 ? '' : `, turned ${frame.angle.toFixed(1)}°`}`;
  },
  Body: FrameStep,
  Surface: FrameSurface,
  wholePlate: true,
};
