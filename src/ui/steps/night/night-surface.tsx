'use client';

import { useView } from '../../editor/editor-context';
import { SurroundMarks } from './surround-marks';
import { MarksSvg } from '../marks-svg';
import type { Stage } from '../step';

export function NightSurface(stage: Stage) {
  const part = useView((view) => view.nightPart);
  return <MarksSvg stage={stage}>{part === 'surround' && <SurroundMarks box={stage.box} />}</MarksSvg>;
}
