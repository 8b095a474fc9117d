'use client';

import { MarksSvg } from '../marks-svg';
import type { Stage } from '../step';
import { usePlay } from './use-play';

export function OutputSurface(stage: Stage) {
  usePlay(stage.night);
  return <MarksSvg stage={stage} />;
}
