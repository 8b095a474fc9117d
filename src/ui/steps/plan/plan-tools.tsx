'use client';

import { Button } from '@mantine/core';
import { notifications } from '@mantine/notifications';
import { useState } from 'react';
import { useStore } from 'zustand';
import { setPlan } from '@/core/scene/commands';
import { RANGES, type Range } from '@/core/fields/ranges';
import { eyeHeightFor, heightOf } from '@/state/actions/plan-actions';
import { guessPlan, type PlanGuess } from '@/state/actions/plan-guess';
import { NumberRow } from '../../controls/number-row';
import { TakeOrLeave } from '../../controls/take-or-leave';
import { useScene, useSession, useView } from '../../editor/editor-context';
import { useFinding } from '../../editor/use-finding';
import { useGuessParts } from './guess-parts';
import own from '../../worksheet/lists.module.css';
import classes from '../../worksheet/worksheet.module.css';

const METRES: Range = { min: 0.1, max: 30, step: 0.05, unit: 'm', decimals: 2 };

/** Ways to lay out the ground plan: a first guess, two lines, a thing of known height, and the pop-up to check it. */
export function PlanTools() {
  const { drawing, popUp, finding, set: setView } = useView((view) => view);
  const tool = (kind: 'parallels' | 'scale', label: string) => (
    <Button
      size="compact-xs"
      variant={drawing === kind ? 'filled' : 'default'}
      aria-pressed={drawing === kind}
      onClick={() =>
        setView({
          drawing: drawing === kind ? undefined : kind,
          parallel: undefined,
          measured: undefined,
        })
      }
    >
      {label}
    </Button>
  );
  const guess = useGuess();
  return (
    <>
      <div className={classes.actions}>
        <Button size="compact-xs" variant="default" loading={finding} onClick={() => void guess()}>
          Guess it
        </Button>
        {tool('parallels', 'By two lines')}
        {tool('scale', 'By a height')}
        <Button
          size="compact-xs"
          variant={popUp ? 'filled' : 'default'}
          aria-pressed={popUp}
          onClick={() => setView({ popUp: !popUp })}
        >
          Pop-up
        </Button>
      </div>
      {drawing === 'parallels' && (
        <p className={classes.hint}>
          Drag along two things that run beside each other into the distance, such as a kerb and the eaves
          over it. Where they meet lies the horizon.
        </p>
      )}
      {drawing === 'scale' && <ScaleCheck />}
      <Guesses />
    </>
  );
}

const isEmpty = ({ horizon, lens, eyeHeight, walls, posts, things, decks }: PlanGuess) =>
  !horizon &&
  (lens ?? eyeHeight) === undefined &&
  walls.length + posts.length + things.length + decks.length === 0;

/** Guesses the plan from the plate's edges; what is found waits for the person. */
function useGuess() {
  const { segmenter, readout, scene: store, photoLens } = useSession();
  const land = useStore(readout, (state) => state.land);
  const setView = useView((view) => view.set);
  const find = useFinding('Nothing could be guessed');
  return async () => {
    if (!land) return;
    const { scene } = store.getState();
    const found = await find(async () => guessPlan(scene, segmenter, land));
    if (!found) return;
    // What the photo says of its own lens is surer.
    const guess = photoLens === undefined ? found : { ...found, lens: undefined };
    if (!isEmpty(guess)) return setView({ guess });
    notifications.show({
      color: 'yellow',
      message:
        'No horizon, no walls and nothing that stands show in this photo. Drag the ends of the horizon by hand.',
    });
  };
}

/** What was guessed, each part to take or to leave. */
function Guesses() {
  const guess = useView((view) => view.guess);
  const setView = useView((view) => view.set);
  const partsOf = useGuessParts();
  if (!guess) return null;
  const parts = partsOf(guess);
  const leave = (rest: PlanGuess) => setView({ guess: isEmpty(rest) ? undefined : rest });
  const leaveAll = () => setView({ guess: undefined });
  return (
    <>
      <ul className={own.list} aria-label="Guesses">
        {parts.map(({ key, label, take, rest }) => (
          <TakeOrLeave
            key={key}
            label={label}
            onTake={() => {
              void take();
              leave(rest);
            }}
            onLeave={() => leave(rest)}
          />
        ))}
      </ul>
      <div className={classes.actions}>
        <Button
          size="compact-xs"
          variant="default"
          onClick={() => {
            leaveAll();
            void parts.reduce((before, { take }) => before.then(take), Promise.resolve());
          }}
        >
          Take all
        </Button>
        <Button size="compact-xs" variant="default" onClick={leaveAll}>
          Leave all
        </Button>
      </div>
    </>
  );
}

/** A thing whose height is known sets the eye height, and with it the scale of the plan. */
function ScaleCheck() {
  const measured = useView((view) => view.measured);
  const setView = useView((view) => view.set);
  const scene = useScene((state) => state.scene);
  const run = useScene((state) => state.run);
  const [metres, setMetres] = useState(2);
  if (!measured)
    return (
      <p className={classes.hint}>
        Drag from the foot of something upright to its top, a door or a person, whose height you know.
      </p>
    );
  const measures = heightOf(scene, measured);
  const eyeHeight = eyeHeightFor(scene, measures, metres);
  return (
    <>
      <p className={classes.hint} role="status">
        By this plan it is {measures.toFixed(2)} m high. If it is not, say how high it is.
      </p>
      <NumberRow label="It is" value={metres} range={METRES} initial={2} onChange={setMetres} />
      <div className={classes.actions}>
        <Button
          size="compact-xs"
          variant="default"
          disabled={Math.abs(eyeHeight - scene.plan.eyeHeight) < RANGES.eyeHeight.step / 2}
          onClick={() => {
            run(setPlan('Eye height by a known height', { eyeHeight }));
            setView({ drawing: undefined, measured: undefined });
          }}
        >
          {`Set the eye to ${eyeHeight.toFixed(2)} m`}
        </Button>
      </div>
    </>
  );
}
