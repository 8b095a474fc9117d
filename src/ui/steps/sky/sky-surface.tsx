'use client';

import { useScene, useView } from '../../editor/editor-context';
import { MarksSvg } from '../marks-svg';
import type { Stage } from '../step';
import { SkyPictureMarks } from './picture-marks';
import { FallMarks, MoonMark, SunMark } from './sky-marks';

export function SkySurface(stage: Stage) {
  const part = useView((view) => view.skyPart);
  const from = useScene(({ scene }) => scene.sky.from);
  const { box } = stage;
  return (
    <MarksSvg stage={stage}>
      {from === 'hour' && part === 'twilight' && <SunMark box={box} />}
      {from === 'hour' && part === 'picture' && <SkyPictureMarks box={box} />}
      {from === 'hour' && part === 'stars' && <FallMarks box={box} />}
      {from === 'hour' && part === 'moon' && <MoonMark box={box} />}
    </MarksSvg>
  );
}
