'use client';

import { VisuallyHidden } from '@mantine/core';
import { Spotlight, spotlight, type SpotlightActionData } from '@mantine/spotlight';
import { useEffect, useState } from 'react';
import { useHotkeys } from 'react-hotkeys-hook';
import { STEP_NAMES, stepOf } from '../steps';
import type { Deed } from '../view/slice';
import { SLICES } from '../view/slices';
import { useScene, useSession, useView } from './editor-context';
import classes from './editor.module.css';
import { EVERYWHERE } from './key-options';
import { useCopying } from './use-copying';

/** All that can be done by its name: opened by the slash key, found by a few letters. */
export function Deeds() {
  const [open, setOpen] = useState(false);
  const actions = useDeeds(open);
  useHotkeys('slash', () => spotlight.open(), { ...EVERYWHERE, preventDefault: true });
  // Whether it is open is known beyond this scene: it goes with it.
  useEffect(() => () => spotlight.close(), []);
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
  const session = useSession();
  const scene = useScene((state) => (open ? state.scene : undefined));
  const set = useView((state) => state.set);
  const { copy, paste } = useCopying();
  const { undo, redo } = session.scene.getState();
  if (!scene) return [];
  const deeds: Deed[] = [
    ...STEP_NAMES.map((step) => ({ label: `Open ${stepOf(step).title}`, run: () => set({ step }) })),
    { label: 'Undo', run: undo },
    { label: 'Redo', run: redo },
    { label: 'Copy the chosen fixtures', run: copy },
    { label: 'Paste fixtures', run: paste },
    ...SLICES.flatMap((slice) => slice.deeds?.({ scene, session, set }) ?? []),
  ];
  return deeds.map(({ label, run }, i) => ({ id: `${i} ${label}`, label, onClick: run }));
}
