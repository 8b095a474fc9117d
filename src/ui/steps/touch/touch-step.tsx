'use client';

import { SegmentedControl, UnstyledButton } from '@mantine/core';
import { TOUCH_ACTS, TOUCH_AMOUNTS, type TouchAct } from '@/core/touch/touch-schema';
import type { Scene, Touch } from '@/core/scene/schema';
import { useScene, useView } from '../../editor/editor-context';
import { ChosenTouch } from './chosen-touch';
import { StrokeWay } from './stroke-way';
import { TouchBrush } from './touch-brush';
import { DriftsPart } from './drifts-part';
import { ACT_TITLES, TOUCH_PARTS, type TouchPartName } from './touch-view';
import { PartFolds, type StepPart } from '../../worksheet/part-folds';
import own from './touch.module.css';
import lists from '../../worksheet/lists.module.css';
import classes from '../../worksheet/worksheet.module.css';

const HINTS: Record<TouchAct, string> = {
  surface:
    'Draw where a surface should catch light. It comes on little by little, and shows what is there by day.',
  air: 'Draw where light should hang in the air. It is added to whatever is behind it.',
  lift: 'Draw where the night’s own light should be lifted, or, below 0 stops, held down.',
};

/** Light that is laid on by hand, stroke by stroke. */
function LightPart() {
  const touches = useScene(({ scene }) => scene.touches);
  const { touch: chosen, touchNext, set } = useView((view) => view);
  const touch = touches.find(({ id }) => id === chosen);
  const does = touch?.does ?? touchNext;
  return (
    <>
      <SegmentedControl
        aria-label="What the next touch does"
        fullWidth
        size="xs"
        value={does}
        onChange={(next) => set({ touch: undefined, touchNext: next })}
        data={TOUCH_ACTS.map((value) => ({ value, label: ACT_TITLES[value] }))}
      />
      <p className={classes.hint}>{HINTS[does]}</p>
      <TouchBrush />
      <ul className={lists.list} aria-label="Touches">
        {touches.map((one) => (
          <li key={one.id}>
            <UnstyledButton
              className={lists.item}
              aria-pressed={one.id === chosen}
              onClick={() => set({ touch: one.id === chosen ? undefined : one.id, touchNext: one.does })}
            >
              <Where touch={one} />
              {one.name}
              <span>{says(one)}</span>
            </UnstyledButton>
          </li>
        ))}
      </ul>
      {touch ? (
        <ChosenTouch key={touch.id} touch={touch} />
      ) : (
        touches.length > 0 && <p className={classes.hint}>The next stroke begins another touch.</p>
      )}
    </>
  );
}

const strokesIn = ({ touches }: Pick<Scene, 'touches'>) =>
  touches.reduce((sum, { strokes }) => sum + strokes.length, 0);

const PARTS: Record<TouchPartName, StepPart> = {
  light: {
    title: 'Light',
    says: (scene) => (strokesIn(scene) === 0 ? 'none' : `${strokesIn(scene)} strokes`),
    Body: LightPart,
  },
  drifts: {
    title: 'Drifts',
    says: ({ drifts }) => drifts.map(({ name }) => name.toLowerCase()).join(', ') || 'none',
    Body: DriftsPart,
  },
};

/** What the hand adds: light, smoke and mist. */
export function TouchStep() {
  const open = useView((view) => view.touchPart);
  const setView = useView((view) => view.set);
  return (
    <PartFolds names={TOUCH_PARTS} parts={PARTS} open={open} onOpen={(touchPart) => setView({ touchPart })} />
  );
}

const says = ({ does, amount, strokes }: Touch): string => {
  const { range } = TOUCH_AMOUNTS[does];
  return `${amount.toFixed(range.decimals)} ${range.unit}, ${strokes.length}`;
};

/** Where a touch is laid on, small. */
function Where({ touch: { strokes } }: { touch: Touch }) {
  const { width, height } = useScene(({ scene }) => scene.plate);
  const size = { width: 36, height: (36 * height) / width };
  return (
    <svg className={own.where} {...size} aria-hidden>
      {strokes.map((stroke, k) => (
        <StrokeWay key={k} stroke={stroke} {...size} />
      ))}
    </svg>
  );
}
