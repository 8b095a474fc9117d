'use client';

import { Button } from '@mantine/core';
import { notifications } from '@mantine/notifications';
import { useState } from 'react';
import { useStore } from 'zustand';
import { addSurface, setPlan, standUp } from '@/core/scene/commands';
import { RANGES, type Range } from '@/core/fields/ranges';
import { MOST_MATTES } from '@/core/matte/matte-schema';
import { MOST_SURFACES } from '@/core/plan/plan-schema';
import {
  eyeHeightFor,
  guessedDeck,
  guessedWall,
  heightOf,
  newPost,
  newThing,
  thingLoop,
} from '@/state/actions/plan-actions';
import { guessPlan, type PlanGuess } from '@/state/actions/plan-guess';
import { NumberRow } from '../../controls/number-row';
import { TakeOrLeave } from '../../controls/take-or-leave';
import { useScene, useSession, useView } from '../../editor/editor-context';
import { useFinding } from '../../editor/use-finding';
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

const isEmpty = ({ horizon, lens, walls, posts, things, decks }: PlanGuess) =>
  !horizon && lens === undefined && walls.length + posts.length + things.length + decks.length === 0;

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
  const run = useScene((state) => state.run);
  const { scene: store, segmenter } = useSession();
  const find = useFinding('Its edge could not be found');
  if (!guess) return null;
  const { horizon, lens, walls, posts, things, decks } = guess;

  function leave(next: PlanGuess): void {
    setView({ guess: isEmpty(next) ? undefined : next });
  }
  const withoutPost = (id: string) => ({ ...guess, posts: posts.filter((post) => post.id !== id) });
  function takePost(post: PlanGuess['posts'][number]): void {
    const { scene } = store.getState();
    if (scene.plan.standees.length >= MOST_SURFACES || scene.mattes.length >= MOST_MATTES) return;
    const { matte, standee } = newPost(scene, post);
    run(standUp(matte, standee));
  }
  const withoutThing = (id: string) => ({ ...guess, things: things.filter((thing) => thing.id !== id) });
  /** Its edge is looked for first. */
  async function takeThing(thing: PlanGuess['things'][number]): Promise<void> {
    const asset = await find(() => segmenter.brush(undefined, [thingLoop(thing.loop)]));
    const { scene } = store.getState();
    if (!asset || scene.plan.standees.length >= MOST_SURFACES || scene.mattes.length >= MOST_MATTES) return;
    const { matte, standee } = newThing(scene, thing, asset);
    run(standUp(matte, standee));
  }
  const withoutWall = (id: string) => ({ ...guess, walls: walls.filter((wall) => wall.id !== id) });
  function takeHorizon(): void {
    if (horizon) run(setPlan('Guessed horizon', { horizon }));
  }
  function takeLens(): void {
    if (lens !== undefined) run(setPlan('Guessed lens', { lens }));
  }
  function takeWall(guessed: PlanGuess['walls'][number]): void {
    const { scene } = store.getState();
    if (scene.plan.walls.length >= MOST_SURFACES) return;
    const wall = guessedWall(scene, guessed);
    run(addSurface(wall.name, 'walls', wall));
  }
  const withoutDeck = (id: string) => ({ ...guess, decks: decks.filter((deck) => deck.id !== id) });
  function takeDeck(guessed: PlanGuess['decks'][number]): void {
    const { scene } = store.getState();
    if (scene.plan.decks.length >= MOST_SURFACES) return;
    const deck = guessedDeck(scene, guessed);
    run(addSurface(deck.name, 'decks', deck));
  }
  const item = (key: string, label: string, take: () => void, next: PlanGuess) => (
    <TakeOrLeave
      key={key}
      label={label}
      onTake={() => {
        take();
        leave(next);
      }}
      onLeave={() => leave(next)}
    />
  );
  return (
    <>
      <ul className={own.list} aria-label="Guesses">
        {horizon && item('horizon', 'the guessed horizon', takeHorizon, { ...guess, horizon: undefined })}
        {lens !== undefined &&
          item('lens', `the guessed lens, ${lens} mm`, takeLens, { ...guess, lens: undefined })}
        {walls.map((wall, i) =>
          item(wall.id, `guessed wall w${i + 1}`, () => takeWall(wall), withoutWall(wall.id)),
        )}
        {posts.map((post, i) =>
          item(post.id, `guessed post p${i + 1}`, () => takePost(post), withoutPost(post.id)),
        )}
        {things.map((thing, i) =>
          item(thing.id, `guessed thing t${i + 1}`, () => void takeThing(thing), withoutThing(thing.id)),
        )}
        {decks.map((deck, i) =>
          item(deck.id, `guessed deck d${i + 1}`, () => takeDeck(deck), withoutDeck(deck.id)),
        )}
      </ul>
      <div className={classes.actions}>
        <Button
          size="compact-xs"
          variant="default"
          onClick={() => {
            takeHorizon();
            takeLens();
            walls.forEach(takeWall);
            posts.forEach(takePost);
            decks.forEach(takeDeck);
            setView({ guess: undefined });
            void things.reduce((before, thing) => before.then(() => takeThing(thing)), Promise.resolve());
          }}
        >
          Take all
        </Button>
        <Button size="compact-xs" variant="default" onClick={() => setView({ guess: undefined })}>
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
