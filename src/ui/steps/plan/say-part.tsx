'use client';

import { Button, SegmentedControl } from '@mantine/core';
import { RANGES } from '@/core/fields/ranges';
import { MOST_SAID } from '@/core/plan/plan-schema';
import { SAID, type Said } from '@/core/survey/said';
import { setPlan, unsayPlace } from '@/core/scene/commands';
import { NumberRow, ratioScale } from '../../controls/number-row';
import { useScene, useSession, useView } from '../../editor/editor-context';
import { useSizeKeys } from '../../picture/use-size-keys';
import { cssOf, PLACE_TINTS } from './place-tints';
import own from './say-part.module.css';
import classes from '../../worksheet/worksheet.module.css';

/** The brush that says what a place is: ground, upright, far, sky or water. */
export function SayPart() {
  const drawing = useView((view) => view.drawing);
  const setView = useView((view) => view.set);
  const isOn = drawing === 'say';
  return (
    <>
      <div className={classes.actions}>
        <Button
          size="compact-xs"
          variant={isOn ? 'filled' : 'default'}
          aria-pressed={isOn}
          onClick={() => setView({ drawing: isOn ? undefined : 'say', surface: undefined })}
        >
          Say what is what
        </Button>
      </div>
      {isOn && <Saying />}
    </>
  );
}

function Saying() {
  const { saying, sayingSize, set } = useView((view) => view);
  const count = useScene(({ scene }) => scene.plan.strokes.length);
  const run = useScene((state) => state.run);
  const { view } = useSession();
  useSizeKeys((sized) => view.setState(({ sayingSize: size }) => ({ sayingSize: sized(size) })));
  return (
    <>
      <SegmentedControl
        fullWidth
        size="xs"
        aria-label="What the brush says"
        value={saying}
        data={SAID.map((as) => ({ value: as, label: <Tinted as={as} /> }))}
        onChange={(next) => set({ saying: next })}
      />
      <NumberRow
        label="Brush size"
        value={sayingSize}
        range={RANGES.brush}
        initial={0.02}
        scale={ratioScale(RANGES.brush)}
        onChange={(size) => set({ sayingSize: size })}
      />
      <p className={classes.hint}>
        {count >= MOST_SAID
          ? `A plan holds ${MOST_SAID} strokes. Take some back to paint more.`
          : 'Paint where the tint is wrong. What is alike around the stroke goes along, up to the next edge. Far is what no lamp reaches.'}
      </p>
      <div className={classes.actions}>
        <Button size="compact-xs" variant="default" disabled={count === 0} onClick={() => run(unsayPlace())}>
          Take back the last stroke
        </Button>
        <Button
          size="compact-xs"
          variant="default"
          disabled={count === 0}
          onClick={() => run(setPlan('Remove all strokes', { strokes: [] }))}
        >
          Remove all
        </Button>
      </div>
    </>
  );
}

/** A kind of place with its tint. */
function Tinted({ as }: { as: Said }) {
  const { title, tint } = PLACE_TINTS[as];
  return (
    <span className={own.tinted} style={{ '--tint': cssOf(tint) } as React.CSSProperties}>
      {title}
    </span>
  );
}
