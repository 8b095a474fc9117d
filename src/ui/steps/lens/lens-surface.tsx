'use client';

import { useMemo, useRef } from 'react';
import type { PlatePoint } from '@/core/geometry/camera';
import { addGlint, addGlints, giveGlints, takeGlints } from '@/state/actions/lens-actions';
import { useScene, useView } from '../../editor/editor-context';
import { brightUnder } from '../../picture/bright-under';
import { usePictureDrag } from '../../picture/use-picture-drag';
import { MarksSvg } from '../marks-svg';
import type { Stage } from '../step';
import { GlintMarkShape, markScales } from './lens-marks';
import { useFoundGlints, useGlintMarks } from './use-glints';

/** How near a stroke passes by a source to count for it, fraction of the width. */
const SWEEP = 0.014;

export function LensSurface(stage: Stage) {
  const run = useScene((state) => state.run);
  const part = useView((view) => view.lensPart);
  const sweep = useView((view) => view.sweep);
  // Elsewhere the picture is looked at, not its marks.
  const isOpen = part === 'sources';
  useFoundGlints(isOpen);
  const marks = useGlintMarks();
  const { box, trail } = stage;
  const scales = useMemo(() => markScales(marks, box), [marks, box]);
  const way = useRef<PlatePoint[]>([]);

  /** Makes what is bright under a stroke sources, but for what is one already. */
  function addBright(drawn: readonly PlatePoint[]): void {
    const aspect = box.width / box.height;
    const found = brightUnder(stage.night.current, drawn, SWEEP).filter((place) =>
      marks.every(({ at }) => Math.hypot(at.u - place.u, (at.v - place.v) / aspect) > SWEEP),
    );
    if (found.length > 0) run(addGlints(found));
  }

  function onEnd(): void {
    trail.current?.removeAttribute('d');
    const passed = marks.filter(({ at }) =>
      way.current.some(({ u, v }) => Math.hypot(at.u - u, ((at.v - v) * box.height) / box.width) < SWEEP),
    );
    const drawn = way.current;
    way.current = [];
    const some = passed.filter(({ isOn }) => isOn === (sweep === 'take'));
    if (some.length > 0) run(sweep === 'take' ? takeGlints(some) : giveGlints(some));
    else if (sweep === 'give') addBright(drawn);
  }
  const gestures = usePictureDrag({
    onDrag(_by, at) {
      way.current.push(at);
      const places = way.current.map(({ u, v }) => `${u * box.width} ${v * box.height}`);
      trail.current?.setAttribute('d', `M${places[0]}L${places.join('L')}`);
      trail.current?.setAttribute('stroke-width', String(2 * SWEEP * box.width));
    },
    onEnd,
    onClick: (at) => run(addGlint(at)),
  });

  return (
    <MarksSvg stage={stage} gestures={isOpen ? gestures : undefined}>
      {isOpen &&
        marks.map((mark, k) => (
          <GlintMarkShape key={k} box={box} mark={mark} name={`Source ${k + 1}`} scale={scales[k]} />
        ))}
    </MarksSvg>
  );
}
