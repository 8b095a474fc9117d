'use client';

import { Button, UnstyledButton } from '@mantine/core';
import { FIRST_DRIFT, MOST_DRIFTS } from '@/core/drift/drift-schema';
import { driftAhead } from '@/core/drift/drift-cover';
import { RANGES, type Range } from '@/core/fields/ranges';
import { cameraOf } from '@/core/picture/camera-of';
import { addDrift, removeDrift, setDrift } from '@/core/scene/drift-commands';
import type { Drift } from '@/core/scene/schema';
import { newDrift } from '@/state/actions/drift-actions';
import { NameField } from '../../controls/name-field';
import { NumberRow, ratioScale } from '../../controls/number-row';
import { useScene, useView } from '../../editor/editor-context';
import lists from '../../worksheet/lists.module.css';
import classes from '../../worksheet/worksheet.module.css';

/** Smoke and mist: what there is, and how the chosen one looks. */
export function DriftsPart() {
  const scene = useScene((state) => state.scene);
  const run = useScene((state) => state.run);
  const chosen = useView((view) => view.drift);
  const setView = useView((view) => view.set);
  const camera = cameraOf(scene);
  const drift = scene.drifts.find(({ id }) => id === chosen);
  const isFull = scene.drifts.length >= MOST_DRIFTS;
  return (
    <>
      <p className={classes.hint}>
        {isFull
          ? `A scene holds ${MOST_DRIFTS} drifts. Remove one to add another.`
          : 'Click in the picture where smoke or mist should hang. Drag its foot to where it is on the ground: what stands nearer hides it, and every lamp lights it.'}
      </p>
      <ul className={lists.list} aria-label="Drifts">
        {scene.drifts.map((one) => (
          <li key={one.id}>
            <UnstyledButton
              className={lists.item}
              aria-pressed={one.id === chosen}
              onClick={() => setView({ drift: one.id === chosen ? undefined : one.id })}
            >
              {one.name}
              <span>{`${driftAhead(camera, one).toFixed(1)} m off`}</span>
            </UnstyledButton>
          </li>
        ))}
      </ul>
      {drift && <ChosenDrift key={drift.id} drift={drift} />}
      <div className={classes.actions}>
        <Button
          size="compact-xs"
          variant="default"
          disabled={isFull}
          onClick={() => {
            const made = newDrift(scene, { u: 0.5, v: 0.6 });
            run(addDrift(made));
            setView({ drift: made.id });
          }}
        >
          Add a drift in the middle
        </Button>
      </div>
    </>
  );
}

type Numbered = keyof typeof FIRST_DRIFT;

function ChosenDrift({ drift }: { drift: Drift }) {
  const run = useScene((state) => state.run);
  const change = useScene((state) => state.change);
  const setView = useView((view) => view.set);
  const { id, name } = drift;
  const row = (key: Numbered, label: string, range: Range, isRatio = false) => (
    <NumberRow
      label={label}
      value={drift[key]}
      range={range}
      initial={FIRST_DRIFT[key]}
      scale={isRatio ? ratioScale(range) : undefined}
      onChange={(value) =>
        change(`drift ${id} ${key}`, setDrift(`${name}: ${label.toLowerCase()}`, id, { [key]: value }))
      }
    />
  );
  return (
    <>
      <div className={classes.pair}>
        <span>Name</span>
        <NameField
          label="Drift name"
          value={name}
          onCommit={(next) => run(setDrift('Name', id, { name: next }))}
        />
      </div>
      {row('density', 'Density', RANGES.strength)}
      {row('size', 'Breadth', RANGES.driftSize, true)}
      {row('tall', 'Tallness', RANGES.driftTall, true)}
      {row('wisps', 'Wisps', RANGES.strength)}
      {row('carried', 'Carried on', RANGES.carried)}
      {row('seed', 'Seed', RANGES.seed)}
      <div className={classes.actions}>
        <Button
          size="compact-xs"
          variant="default"
          onClick={() => {
            run(removeDrift(id));
            setView({ drift: undefined });
          }}
        >
          Remove the drift
        </Button>
      </div>
    </>
  );
}
