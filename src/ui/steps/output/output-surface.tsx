'use client';

import { MarksSvg } from '../marks-svg';
import type { Stage } from '../step';

export const OutputSurface = (stage: Stage) => <MarksSvg stage={stage} />;
