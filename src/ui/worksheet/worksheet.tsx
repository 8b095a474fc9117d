'use client';

import { UnstyledButton } from '@mantine/core';
import type { ComponentType } from 'react';
import { framedSize, isWholeFrame } from '@/core/frame/frame';
import { hourName } from '@/core/night/hour';
import type { Scene } from '@/core/scene/schema';
import { FITTED, STEPS, type Step, type ViewStore } from '@/state/view-store';
import { useScene, useSession, useView } from '../editor/editor-context';
import { FixturesStep } from './fixtures-step';
import { FrameStep } from './frame-step';
import { MattesStep } from './mattes-step';
import { NightStep } from './night-step';
import { OutputStep } from './output-step';
import { PlanStep } from './plan-step';
import classes from './worksheet.module.css';

interface StepInfo {
  title: string;
  /** What was decided, in one line. */
  decided: (scene: Scene) => string;
  Body: ComponentType;
}

const STEP_INFO: Record<Step, StepInfo> = {
  frame: {
    title: 'Frame',
    decided: ({ frame, plate }) => {
      if (isWholeFrame(frame)) return 'the whole plate';
      const { width, height } = framedSize(plate, frame);
      return `${width} × ${height}${frame.angle === 0 ? '' : `, turned ${frame.angle.toFixed(1)}°`}`;
    },
    Body: FrameStep,
  },
  night: {
    title: 'Night',
    decided: ({ night }) =>
      `${hourName(night.hour)}, ${signed(night.exposure)} stops, ${Math.round(night.kelvin / 50) * 50} K`,
    Body: NightStep,
  },
  mattes: {
    title: 'Mattes',
    decided: ({ mattes }) => mattes.map(({ name }) => name.toLowerCase()).join(', ') || 'none',
    Body: MattesStep,
  },
  plan: {
    title: 'Ground plan',
    decided: ({ plan }) => `${plan.lens} mm, eye ${plan.eyeHeight.toFixed(2)} m`,
    Body: PlanStep,
  },
  fixtures: {
    title: 'Fixtures',
    decided: ({ fixtures, circuits }) =>
      fixtures.length === 0
        ? 'none lit'
        : `${fixtures.length} lit on ${circuits.length} circuit${circuits.length === 1 ? '' : 's'}`,
    Body: FixturesStep,
  },
  output: {
    title: 'Output',
    decided: ({ plate, frame }) => {
      const { width, height } = framedSize(plate, frame);
      return `${width} × ${height}`;
    },
    Body: OutputStep,
  },
};

const signed = (value: number) => `${value < 0 ? '−' : '+'}${Math.abs(value).toFixed(1)}`;

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

/** Opens a step. The Frame step shows the whole plate, so the look is fitted on the way in and out. */
function openStep(view: ViewStore, name: Step): void {
  const { step, look, set } = view.getState();
  const refit = name !== step && (name === 'frame' || step === 'frame');
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
