'use client';

import { MatteMarks } from '../../picture/matte-marks';
import { useMatteGestures } from '../../picture/use-matte-gestures';
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
