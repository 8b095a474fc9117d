'use client';

import { MatteMarks } from './matte-marks';
import { useMatteGestures } from './use-matte-gestures';
import { MarksSvg } from '../marks-svg';
import type { Stage } from '../step';

export function MattesSurface(stage: Stage) {
  const gestures = useMatteGestures(stage);
  return (
    <MarksSvg stage={stage} gestures={gestures}>
      <MatteMarks box={stage.box} trail={stage.trail} />
    </MarksSvg>
  );
}
