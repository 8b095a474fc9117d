'use client';

import { UnstyledButton } from '@mantine/core';
import { FITTED, STEPS, type Step, type ViewStore } from '@/state/view-store';
import { useScene, useSession, useView } from '../editor/editor-context';
import { STEP_INFO } from '../steps';
import classes from './worksheet.module.css';

/** The steps of the work, written out; one is open, a folded one says what was decided. */
export function Worksheet() {
  return (
    <aside className={classes.worksheet} aria-label="Worksheet">
      {STEPS.map((name) => (
        <StepSection key={name} name={name} />
      ))}
    </aside>
  );
}

/** Opens a step. Where one of two shows the whole plate, whatever the frame, the look is fitted on the way. */
function openStep(view: ViewStore, name: Step): void {
  const { step, look, set } = view.getState();
  const refit = STEP_INFO[name].wholePlate !== STEP_INFO[step].wholePlate;
  set({ step: name, picking: false, levelling: false, look: refit ? FITTED : look });
}

function StepSection({ name }: { name: Step }) {
  const { title, decided, Body } = STEP_INFO[name];
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
