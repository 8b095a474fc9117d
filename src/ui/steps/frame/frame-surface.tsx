'use client';

import { FrameMarks } from './frame-marks';
import { MarksSvg } from '../marks-svg';
import type { Stage } from '../step';

export function FrameSurface(stage: Stage) {
  return (
    <MarksSvg stage={stage}>
      <FrameMarks box={stage.box} />
    </MarksSvg>
  );
}
