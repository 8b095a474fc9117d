'use client';

import { UnstyledButton } from '@mantine/core';
import { useEffect, useMemo } from 'react';
import { calmScene } from '@/state/session/calm-scene';
import { FITTED } from '../view/look';
import { SLICES } from '../view/slices';
import { left, type ViewStore } from '../view/view-store';
import { EditorContext, useScene, useSession, useView } from '../editor/editor-context';
import { STEP_NAMES, stepOf, type StepName } from '../steps';
import classes from './worksheet.module.css';

/** The steps of the work, written out; one is open, a folded one says what was decided. */
export function Worksheet() {
  const session = useSession();
  const { calm, follow } = useMemo(() => calmScene(session.scene), [session]);
  const calmed = useMemo(() => ({ ...session, scene: calm }), [session, calm]);
  useEffect(() => follow(), [follow]);
  return (
    <EditorContext.Provider value={calmed}>
      <aside className={classes.worksheet} aria-label="Worksheet">
        {STEP_NAMES.map((name) => (
          <StepSection key={name} name={name} />
        ))}
      </aside>
    </EditorContext.Provider>
  );
}

/** Opens a step. Where one of two shows the whole plate, whatever the frame, the look is fitted on the way. */
function openStep(view: ViewStore, name: StepName): void {
  const { step, look, set } = view.getState();
  const refit = stepOf(name).wholePlate !== stepOf(step).wholePlate;
  set({ ...left(SLICES), step: name, look: refit ? FITTED : look });
}

function StepSection({ name }: { name: StepName }) {
  const { title, decided, Body } = stepOf(name);
  const open = useView((view) => view.step === name);
  const { view } = useSession();
  const says = useScene(({ scene }) => decided(scene));
  return (
    <section className={classes.step} data-open={open || undefined}>
      <h2>
        <UnstyledButton className={classes.head} aria-expanded={open} onClick={() => openStep(view, name)}>
          <span className={classes.title}>{title}</span>
          {!open && <span className={classes.decided}>{says}</span>}
        </UnstyledButton>
      </h2>
      {open && (
        <div className={classes.body}>
          <Body />
        </div>
      )}
    </section>
  );
}
