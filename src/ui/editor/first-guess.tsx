'use client';

import { Button } from '@mantine/core';
import { useEffect, useMemo, type RefObject } from 'react';
import { useStore } from 'zustand';
import {
  firstGuess,
  guessSays,
  isSeveral,
  isUntouched,
  takeFirstGuess,
  withThings,
  type FirstGuess,
} from '@/state/actions/first-guess';
import type { ReadLand } from '@/state/actions/plan-guess';
import { newScene } from '@/core/scene/new-scene';
import type { Scene } from '@/core/scene/schema';
import { PopUp } from '../picture/pop-up';
import { useScene, useSession, useView } from './editor-context';
import { useStanding } from './use-standing';
import classes from './first-guess.module.css';

/** Guesses the ground plan of a new photo in the background, once its first night is on the screen. */
function useFirstGuess(): void {
  const { segmenter, readout, scene: store, photoLens } = useSession();
  const land = useStore(readout, (state) => (state.night ? state.land : undefined));
  const coverage = useStore(readout, (state) => state.coverage);
  const set = useView((view) => view.set);
  const untouched = useScene(({ scene }) => isUntouched(scene));
  const answered = useView((view) => view.answered);
  useEffect(() => {
    if (!land || !untouched || answered) return;
    let isOver = false;
    const offerTo = (offer?: FirstGuess) => {
      if (!isOver) set({ offer });
    };
    async function guess(scene: Scene, read: ReadLand) {
      const offer = await firstGuess(scene, segmenter, read, photoLens, coverage);
      offerTo(offer);
      if (offer && !isOver) offerTo(await withThings(scene, offer, segmenter));
    }
    // Nobody asked for it: where it does not come about there is nothing to say.
    void guess(store.getState().scene, land).catch(() => undefined);
    return () => {
      isOver = true;
      set({ offer: undefined });
    };
  }, [land, coverage, untouched, answered, segmenter, store, photoLens, set]);
}

/** The guessed plan of a new photo, offered in one line over the picture. */
export function FirstGuessOffer({ day }: { day: RefObject<HTMLCanvasElement | null> }) {
  useFirstGuess();
  const offer = useView((view) => view.offer);
  const set = useView((view) => view.set);
  const run = useScene((state) => state.run);
  const standing = useStanding();
  const plate = useScene(({ scene }) => scene.plate);
  // The rest of a scene makes no difference to its plan's pop-up: what is dragged meanwhile does not start it anew.
  const plan = offer?.plan;
  const guessed = useMemo(() => plan && { ...newScene('Untitled', plate), plan }, [plan, plate]);
  if (!offer || !guessed) return null;
  async function take(taken: FirstGuess): Promise<void> {
    set({ answered: true });
    run(takeFirstGuess(taken));
    for (const thing of taken.things ?? []) await standing.thing(thing);
  }
  const it = isSeveral(offer) ? 'them' : 'it';
  return (
    <div className={classes.offer} role="region" aria-label="First guess">
      <div className={classes.popUp}>
        <PopUp scene={guessed} day={day} label="The guess as a pop-up, turning" />
      </div>
      <span>
        {guessSays(offer)} Use {it}?
      </span>
      <Button size="compact-xs" onClick={() => void take(offer)}>
        Use {it}
      </Button>
      <Button size="compact-xs" variant="default" onClick={() => set({ answered: true })}>
        No
      </Button>
    </div>
  );
}
