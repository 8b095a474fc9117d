'use client';

import { Button, NativeSelect } from '@mantine/core';
import { useDeferredValue, useState } from 'react';
import { KINDS } from '@/core/fixture/kinds';
import { moveToCircuit, setCircuit, setFixture } from '@/core/scene/commands';
import { removeFixtures, setFixtures } from '@/core/scene/many-commands';
import { RANGES, type Range } from '@/core/scene/ranges';
import type { Circuit, Fixture } from '@/core/scene/schema';
import { newCircuit, pathAround, standingOf } from '@/state/fixture-actions';
import { useScene, useView } from '../editor/editor-context';
import { useLightFixture } from '../editor/use-light-fixture';
import { NumberRow, ratioScale } from '../controls/number-row';
import { NameField } from '../controls/name-field';
import { Fold } from '../controls/fold';
import { isPlainGrip } from '@/core/picture/grip';
import { FixtureHold } from './fixture-hold';
import { GelSwatches } from './gel-swatches';
import { GripEditor } from './grip-editor';
import { KindTiles } from './kind-tiles';
import { KindSettings } from './kind-settings';
import { ManyAlike } from './many-alike';
import { NewLight } from './new-light';
import classes from './worksheet.module.css';

const WARM = 'linear-gradient(90deg, #ff7a1f, #ffd9a8 45%, #fff 60%, #a9c4ff)';
const NEW_CIRCUIT = 'new';
const KELVIN: Range = { ...RANGES.kelvin, max: 12000 };

/** Numbers of a fixture with a row each. */
const ROW_RANGES = {
  lumens: RANGES.lumens,
  heart: RANGES.heart,
  halo: RANGES.halo,
  shown: RANGES.level,
  spill: RANGES.level,
};
type OwnRow = keyof typeof ROW_RANGES;

/** The row of the flux, by what it is of. */
const POWER = { whole: 'Power', each: 'Power each', metre: 'Power a m' } as const;

/** The lights: the chosen one's settings, or the gesture that lights the first. */
export function FixturesStep() {
  const scene = useScene((state) => state.scene);
  const light = useLightFixture();
  const kind = useView((view) => view.kind);
  // Deferred: the settings may come a moment after the mark shows what is chosen.
  const chosenId = useDeferredValue(useView((view) => view.chosen));
  const chosen = scene.fixtures.find(({ id }) => id === chosenId);

  return (
    <>
      <KindTiles />
      <NewLight />
      {chosen ? (
        <ChosenFixture key={chosen.id} fixture={chosen} />
      ) : (
        <p className={classes.hint}>{KINDS[kind].hint}</p>
      )}
      <div className={classes.actions}>
        <Button
          size="compact-xs"
          variant="default"
          onClick={() => {
            const at = { u: 0.5, v: Math.max(0.1, scene.plan.horizon.left - 0.15) };
            light(at, pathAround(kind, at));
          }}
        >
          {`Light ${KINDS[kind].one} in the middle`}
        </Button>
      </div>
    </>
  );
}

function ChosenFixture({ fixture }: { fixture: Fixture }) {
  const scene = useScene((state) => state.scene);
  const change = useScene((state) => state.change);
  const run = useScene((state) => state.run);
  const picking = useView((view) => view.picking);
  const also = useView((view) => view.also);
  const [gripping, setGripping] = useState(false);
  const setView = useView((view) => view.set);
  const kind = KINDS[fixture.kind];
  const { defaults } = kind;
  const { id, name, gel } = fixture;
  const ids = [id, ...also];
  const circuit = scene.circuits.find((c) => c.id === fixture.circuit)!;
  const standing = standingOf(scene, fixture);
  const glass: Range = {
    min: Math.ceil(RANGES.size.min * standing.perWidth * 200) / 2,
    max: Math.floor(RANGES.size.max * standing.perWidth * 100),
    step: 0.5,
    unit: 'cm',
    decimals: 1,
  };
  const set = (label: string, values: Partial<Fixture>) =>
    change(
      `fixture ${ids.join()} ${Object.keys(values).join()}`,
      setFixtures(ids.length === 1 ? `${name}: ${label}` : `${ids.length} fixtures: ${label}`, ids, values),
    );

  const row = (key: OwnRow, label: string, initial: number) => (
    <NumberRow
      label={label}
      value={fixture[key]}
      range={ROW_RANGES[key]}
      initial={initial}
      scale={key === 'lumens' ? ratioScale(RANGES.lumens) : undefined}
      onChange={(value) => set(label.toLowerCase(), { [key]: value })}
    />
  );

  function moveTo(target: string): void {
    if (target === circuit.id) return;
    const to = target === NEW_CIRCUIT ? newCircuit(scene) : scene.circuits.find((c) => c.id === target)!;
    run(moveToCircuit(id, to));
    setView({ circuit: to.id });
  }

  return (
    <>
      {also.length > 0 && (
        <p className={classes.hint} role="status">
          {`${ids.length} fixtures are chosen: what is set here is set of all of them.`}
        </p>
      )}
      <div className={classes.pair}>
        <span>Name</span>
        <NameField
          label="Fixture name"
          value={name}
          onCommit={(next) => run(setFixture('Name', id, { name: next }))}
        />
      </div>
      <div className={classes.pair}>
        <span>Circuit</span>
        <NativeSelect
          aria-label="Circuit"
          size="xs"
          value={circuit.id}
          data={[
            ...scene.circuits.map((c: Circuit) => ({ value: c.id, label: c.name })),
            { value: NEW_CIRCUIT, label: 'A new circuit' },
          ]}
          onChange={(event) => moveTo(event.currentTarget.value)}
        />
      </div>
      <div className={classes.pair}>
        <span>Circuit name</span>
        <NameField
          label="Circuit name"
          value={circuit.name}
          onCommit={(next) => run(setCircuit('Circuit name', circuit.id, { name: next }))}
        />
      </div>
      <NumberRow
        label="Gel"
        value={Math.min(KELVIN.max, gel.kelvin)}
        range={KELVIN}
        initial={defaults.kelvin}
        scale={ratioScale(KELVIN)}
        track={WARM}
        onChange={(kelvin) => set('gel', { gel: { ...gel, from: 'kelvin', kelvin } })}
      />
      <GelSwatches gel={gel} onChange={(next) => run(setFixtures(`${name}: gel`, ids, { gel: next }))} />
      {row('lumens', POWER[kind.powerPer], defaults.lumens)}
      {kind.sizeLabel !== undefined && (
        <NumberRow
          label={kind.sizeLabel}
          value={100 * standing.radius}
          range={glass}
          initial={100 * defaults.radius}
          scale={ratioScale(glass)}
          onChange={(cm) => set('glass', { size: cm / 100 / standing.perWidth })}
        />
      )}
      {kind.seen && (
        <>
          {row('heart', 'Heart', defaults.heart)}
          {row('halo', 'Halo', defaults.halo)}
          {row('shown', 'Whiter', 0)}
        </>
      )}
      <KindSettings fixture={fixture} />
      {row('spill', 'Spill', 0)}
      <Fold
        title="Grip"
        says={
          isPlainGrip(circuit.grip)
            ? 'all parts alike'
            : `dark ${circuit.grip.darkShare.toFixed(2)}, bright ${circuit.grip.brightShare.toFixed(2)}`
        }
        open={gripping}
        onToggle={() => setGripping(!gripping)}
      >
        <GripEditor circuit={circuit} />
      </Fold>
      <FixtureHold fixture={fixture} />
      <ManyAlike fixture={fixture} />
      <div className={classes.actions}>
        <Button
          size="compact-xs"
          variant={picking ? 'filled' : 'default'}
          aria-pressed={picking}
          onClick={() => setView({ picking: !picking })}
        >
          {gel.from === 'picture' ? 'Pick another gel' : 'Pick the gel off the picture'}
        </Button>
        <Button
          size="compact-xs"
          variant="default"
          onClick={() => {
            run(removeFixtures(ids));
            setView({ chosen: undefined });
          }}
        >
          {also.length > 0 ? `Remove all ${ids.length}` : 'Remove'}
        </Button>
      </div>
      <p className={classes.hint}>
        {picking
          ? 'Click a lamp or a surface whose colour the light should have.'
          : 'Drag the drop, drag its foot, roll the wheel over it for the size.'}
      </p>
    </>
  );
}
