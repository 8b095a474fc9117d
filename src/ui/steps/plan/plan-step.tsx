'use client';

import { Button } from '@mantine/core';
import { setPlan } from '@/core/scene/commands';
import { newScene } from '@/core/scene/new-scene';
import { RANGES } from '@/core/fields/ranges';
import { useScene, useSession } from '../../editor/editor-context';
import { NumberRow, ratioScale } from '../../controls/number-row';
import { planFaults } from '@/core/picture/plan-faults';
import { PlanTools } from './plan-tools';
import { SayPart } from './say-part';
import { SunShadowPart } from './sun-shadow-part';
import { SurfacesPart } from './surfaces-part';
import classes from '../../worksheet/worksheet.module.css';

/** The ground plan: where the horizon lies, from how high and through which lens the photo was taken. */
export function PlanStep() {
  const plate = useScene(({ scene }) => scene.plate);
  const { photoLens } = useSession();
  const plan = useScene(({ scene }) => scene.plan);
  const change = useScene((state) => state.change);
  const run = useScene((state) => state.run);
  const start = newScene('Untitled', plate, photoLens).plan;
  const horizon = (side: 'left' | 'right', label: string) => (
    <NumberRow
      label={label}
      value={plan.horizon[side]}
      range={RANGES.horizon}
      initial={start.horizon[side]}
      onChange={(value) =>
        change(`plan horizon ${side}`, setPlan('Horizon', { horizon: { ...plan.horizon, [side]: value } }))
      }
    />
  );
  const row = (name: 'eyeHeight' | 'lens', label: string) => (
    <NumberRow
      label={label}
      value={plan[name]}
      range={RANGES[name]}
      initial={start[name]}
      scale={ratioScale(RANGES[name])}
      onChange={(value) => change(`plan ${name}`, setPlan(label, { [name]: value }))}
    />
  );
  return (
    <>
      {horizon('left', 'Horizon left')}
      {horizon('right', 'Horizon right')}
      {row('eyeHeight', 'Eye height')}
      {row('lens', 'Lens')}
      <p className={classes.hint}>
        Drag the ends of the horizon in the picture until the grid lies flat on the ground. Its squares are
        one metre; what rises from the ground stands upright where it meets it.
      </p>
      <PlanTools />
      <SayPart />
      <SurfacesPart />
      <SunShadowPart />
      <PlanFaults />
      <div className={classes.actions}>
        <Button
          size="compact-xs"
          variant="default"
          onClick={() => run(setPlan('Reset the ground plan', start))}
        >
          Start over
        </Button>
      </div>
    </>
  );
}

/** What of the plan cannot be, and what to do about it. */
function PlanFaults() {
  const scene = useScene((state) => state.scene);
  const faults = planFaults(scene);
  return (
    <ul className={classes.faults} role="status" aria-label="This can’t be laid out">
      {faults.map((fault) => (
        <li key={fault}>{fault}</li>
      ))}
    </ul>
  );
}
