'use client';

import { VisuallyHidden } from '@mantine/core';
import { Spotlight, spotlight, type SpotlightActionData } from '@mantine/spotlight';
import { useState } from 'react';
import { useHotkeys } from 'react-hotkeys-hook';
import { KIND_NAMES, KINDS } from '@/core/fixture/kinds';
import { FINISHES } from '@/core/plan/finishes';
import { setDeskBetween } from '@/core/scene/cue-commands';
import { setCircuit, setGround } from '@/core/scene/commands';
import { removeFixtures } from '@/core/scene/many-commands';
import { chosenIds, FITTED, PROOFS, STEPS } from '@/state/view-store';
import { STEP_INFO } from '../steps';
import { useScene, useSession, useView } from './editor-context';
import classes from './editor.module.css';
import { EVERYWHERE } from './key-options';
import { useCopying } from './use-copying';

const PROOF_NAMES: Record<(typeof PROOFS)[number], string> = {
  night: 'the night alone',
  wipe: 'night wiped over day',
  beside: 'night and day beside each other',
};

/** All that can be done by its name: opened by the slash key, found by a few letters. */
export function Deeds() {
  const [open, setOpen] = useState(false);
  const actions = useDeeds(open);
  useHotkeys('slash', () => spotlight.open(), { ...EVERYWHERE, preventDefault: true });
  return (
    <Spotlight
      actions={actions}
      onSpotlightOpen={() => setOpen(true)}
      onSpotlightClose={() => setOpen(false)}
      shortcut={null}
      title={<VisuallyHidden>Deeds</VisuallyHidden>}
      className={classes.deeds}
      overlayProps={{ backgroundOpacity: 0.35, blur: 0 }}
      yOffset="max(40px, calc(100dvh - 520px))"
      size={420}
      nothingFound="Nothing is called that here."
      highlightQuery
      limit={9}
      searchProps={{ placeholder: 'Do anything by name', 'aria-label': 'Do anything by name' }}
    />
  );
}

/** What can be done now. While nobody asks it is not listed, so that a drag makes no lists. */
function useDeeds(open: boolean): SpotlightActionData[] {
  const { scene: store, view } = useSession();
  const scene = useScene((state) => (open ? state.scene : undefined));
  const set = useView((state) => state.set);
  const { copy, paste } = useCopying();
  const { run, undo, redo } = store.getState();
  const deed = (label: string, onClick: () => void): SpotlightActionData => ({ id: label, label, onClick });
  if (!scene) return [];
  const { circuits, cues, fixtures } = scene;

  function takeAway(): void {
    const ids = chosenIds(view.getState());
    if (ids.length === 0) return;
    run(removeFixtures(ids));
    set({ chosen: undefined });
  }

  return [
    ...STEPS.map((step) => deed(`Open ${STEP_INFO[step].title}`, () => set({ step }))),
    ...KIND_NAMES.map((kind) =>
      deed(`Light next: ${KINDS[kind].title}`, () =>
        set({ step: 'fixtures', kind, chosen: undefined, picking: false }),
      ),
    ),
    ...(['dry', 'damp', 'wet'] as const).map((finish) =>
      deed(`Make the ground ${finish}`, () => run(setGround(`Ground: ${finish}`, FINISHES[finish]))),
    ),
    deed('Undo', undo),
    deed('Redo', redo),
    deed('Copy the chosen fixtures', copy),
    deed('Paste fixtures', paste),
    deed('Remove the chosen fixtures', takeAway),
    deed('Pick the gel off the picture', () => set({ step: 'fixtures', picking: true })),
    deed('Build the scene up from dark', () => set({ buildUp: 0, buildUpRuns: true })),
    deed('Read values off the picture', () => set({ probing: true })),
    deed('Fit the picture into the view', () => set({ look: FITTED })),
    ...PROOFS.map((proof) => deed(`Show ${PROOF_NAMES[proof]}`, () => set({ proof }))),
    ...cues.map((cue) =>
      deed(`Call cue ${cue.name}`, () => run(setDeskBetween(`Cue: ${cue.name}`, cue, cue, 1))),
    ),
    ...circuits.flatMap(({ id, name, muted, solo }) => [
      deed(`${muted ? 'Light' : 'Mute'} ${name}`, () =>
        run(setCircuit(`${name}: ${muted ? 'on again' : 'mute'}`, id, { muted: !muted })),
      ),
      deed(`${solo ? 'End solo of' : 'Solo'} ${name}`, () =>
        run(setCircuit(`${name}: ${solo ? 'end solo' : 'solo'}`, id, { solo: !solo })),
      ),
      deed(`Choose all on ${name}`, () => {
        const [chosen, ...also] = fixtures.filter(({ circuit }) => circuit === id).map((f) => f.id);
        set({ step: 'fixtures', chosen, also, circuit: id });
      }),
    ]),
    ...fixtures.map(({ id, name, circuit }) => ({
      ...deed(`Choose ${name}`, () => set({ step: 'fixtures', chosen: id, circuit })),
      id,
    })),
  ].map((action, i) => ({ ...action, id: `${i} ${action.id}` }));
}
