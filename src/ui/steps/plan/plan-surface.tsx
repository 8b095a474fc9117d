'use client';

import { PlanMarks } from './plan-marks';
import { usePlanGestures } from './use-plan-gestures';
import { MarksSvg } from '../marks-svg';
import type { Stage } from '../step';

export function PlanSurface(stage: Stage) {
  const gestures = usePlanGestures(stage.trail);
  return (
    <MarksSvg stage={stage} gestures={gestures}>
      <PlanMarks box={stage.box} trail={stage.trail} />
    </MarksSvg>
  );
}
