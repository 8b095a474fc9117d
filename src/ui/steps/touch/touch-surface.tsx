'use client';

import { useRef } from 'react';
import { clampTo, RANGES } from '@/core/fields/ranges';
import { setTouch } from '@/core/scene/touch-commands';
import { useScene, useSession, useView } from '../../editor/editor-context';
import { BrushCircle } from '../../picture/brush-circle';
import { KeyBrush } from '../../picture/key-brush';
import { pickColor } from '../../picture/pick-color';
import { usePictureDrag } from '../../picture/use-picture-drag';
import { useWheel } from '../../picture/use-wheel';
import { MarksSvg } from '../marks-svg';
import type { Stage } from '../step';
import { DriftsSurface } from './drifts-surface';
import { StrokeWay } from './stroke-way';
import { useTouchStroke } from './use-touch-stroke';

const WHEEL_STEP = 1.12;

/** Pressure of a dab that keys lay. */
const FIRM = 0.8;

/** The brush of light over the picture, or its drifts. */
export function TouchSurface(stage: Stage) {
  const part = useView((view) => view.touchPart);
  if (part === 'drifts') return <DriftsSurface {...stage} />;
  return part === 'light' ? <LightSurface {...stage} /> : <MarksSvg stage={stage} />;
}

/** The brush of light, and where the chosen stroke runs. */
function LightSurface(stage: Stage) {
  const { box, day } = stage;
  const svg = useRef<SVGSVGElement>(null);
  const { view } = useSession();
  const touches = useScene(({ scene }) => scene.touches);
  const run = useScene((state) => state.run);
  const { touch: chosen, touchStroke, touchBrush, touchAt, picking, set } = useView((state) => state);
  const { gestures, dab } = useTouchStroke(stage);
  const touch = touches.find(({ id }) => id === chosen);
  const stroke = touchStroke === undefined ? undefined : touch?.strokes[touchStroke];
  const radius = touchBrush.size * box.width;
  useWheel(
    svg,
    WHEEL_STEP,
    (factor) =>
      view.setState(({ touchBrush: brush }) => ({
        touchBrush: { ...brush, size: clampTo(brush.size * factor, RANGES.brush) },
      })),
    ({ altKey }) => altKey,
  );
  const picks = usePictureDrag({
    onDrag: () => {},
    onEnd: () => {},
    onClick(at) {
      const gel = { from: 'picture', kelvin: touch!.gel.kelvin, color: pickColor(day.current!, at) } as const;
      run(setTouch(`${touch!.name}: gel off the picture`, touch!.id, { gel }));
      set({ picking: false });
    },
  });
  return (
    <MarksSvg stage={stage} svg={svg} gestures={picking && touch ? picks : gestures}>
      {stroke && <StrokeWay stroke={stroke} width={box.width} height={box.height} />}
      {!picking && <BrushCircle radius={radius} />}
      <KeyBrush
        label="Brush: arrow keys move it, Enter lays a dab"
        box={box}
        at={touchAt}
        radius={radius}
        onMove={(at) => set({ touchAt: at })}
        onPress={() => dab([touchAt.u, touchAt.v, FIRM])}
      />
    </MarksSvg>
  );
}
