'use client';

import { Button, NativeSelect, UnstyledButton } from '@mantine/core';
import { RANGES, type Range } from '@/core/fields/ranges';
import type { Circuit, Touch } from '@/core/scene/schema';
import {
  moveTouch,
  partStroke,
  removeStroke,
  removeTouch,
  setStroke,
  setTouch,
} from '@/core/scene/touch-commands';
import { TOUCH_AMOUNTS } from '@/core/touch/touch-schema';
import { newCircuit } from '@/state/actions/fixture-actions';
import { freeName } from '@/state/actions/free-name';
import { HoldSelect } from '../../controls/hold-select';
import { NameField } from '../../controls/name-field';
import { NumberRow, ratioScale } from '../../controls/number-row';
import { useScene, useView } from '../../editor/editor-context';
import { GelSwatches } from '../fixtures/gel-swatches';
import { StrokeWay } from './stroke-way';
import own from './touch.module.css';
import classes from '../../worksheet/worksheet.module.css';

const KELVIN: Range = { ...RANGES.kelvin, max: 12000 };
const NEW_CIRCUIT = 'new';
const NONE = '';

/** All that is set on the chosen touch. */
export function ChosenTouch({ touch }: { touch: Touch }) {
  const run = useScene((state) => state.run);
  const change = useScene((state) => state.change);
  const setView = useView((view) => view.set);
  const { id, name, does, amount } = touch;
  const { range, start } = TOUCH_AMOUNTS[does];
  return (
    <>
      <div className={classes.pair}>
        <span>Name</span>
        <NameField
          label="Touch name"
          value={name}
          onCommit={(next) => run(setTouch('Name', id, { name: next }))}
        />
      </div>
      <NumberRow
        label="Amount"
        value={amount}
        range={range}
        initial={start}
        scale={does === 'lift' ? undefined : ratioScale(range)}
        onChange={(value) => change(`touch ${id} amount`, setTouch(`${name}: amount`, id, { amount: value }))}
      />
      {does !== 'lift' && <TouchLight touch={touch} />}
      <TouchHold touch={touch} />
      <Strokes touch={touch} />
      <div className={classes.actions}>
        <Button
          size="compact-xs"
          variant="default"
          onClick={() => {
            run(removeTouch(id));
            setView({ touch: undefined });
          }}
        >
          Remove the touch
        </Button>
        <Button size="compact-xs" variant="default" onClick={() => setView({ touch: undefined })}>
          Begin another
        </Button>
      </div>
    </>
  );
}

/** The circuit that dims a touch, and its gel. */
function TouchLight({ touch: { id, name, circuit, gel } }: { touch: Touch }) {
  const scene = useScene((state) => state.scene);
  const run = useScene((state) => state.run);
  const change = useScene((state) => state.change);
  const picking = useView((view) => view.picking);
  const setView = useView((view) => view.set);
  const isDark = scene.circuits.some((one) => one.id === circuit && one.muted);
  function moveTo(target: string): void {
    const to: Circuit | undefined =
      target === NEW_CIRCUIT ? newCircuit(scene) : scene.circuits.find((one) => one.id === target);
    if (!to || to.id === circuit) return;
    run(moveTouch(id, to));
    setView({ circuit: to.id });
  }
  return (
    <>
      <div className={classes.pair}>
        <span>Circuit</span>
        <NativeSelect
          aria-label="Circuit of the touch"
          size="xs"
          value={circuit}
          data={[
            ...scene.circuits.map((one) => ({ value: one.id, label: one.name })),
            { value: NEW_CIRCUIT, label: 'A new circuit' },
          ]}
          onChange={({ currentTarget: { value } }) => moveTo(value)}
        />
      </div>
      {isDark && <p className={classes.hint}>This circuit is muted: what is laid on shows once it is on.</p>}
      <NumberRow
        label="Gel"
        value={Math.min(KELVIN.max, gel.kelvin)}
        range={KELVIN}
        initial={2700}
        scale={ratioScale(KELVIN)}
        onChange={(kelvin) =>
          change(`touch ${id} gel`, setTouch(`${name}: gel`, id, { gel: { ...gel, from: 'kelvin', kelvin } }))
        }
      />
      <GelSwatches gel={gel} onChange={(next) => run(setTouch(`${name}: gel`, id, { gel: next }))} />
      <div className={classes.actions}>
        <Button
          size="compact-xs"
          variant={picking ? 'filled' : 'default'}
          aria-pressed={picking}
          onClick={() => setView({ picking: !picking })}
        >
          Pick the gel off the picture
        </Button>
      </div>
    </>
  );
}

/** What keeps a touch in: a matte, and the form of surfaces. */
function TouchHold({ touch: { id, name, does, only, toward } }: { touch: Touch }) {
  const fixtures = useScene(({ scene }) => scene.fixtures);
  const run = useScene((state) => state.run);
  return (
    <>
      <HoldSelect
        caption="Kept in"
        label="The matte that keeps the touch in"
        free="nothing"
        hold={only}
        onChange={(next) => run(setTouch(`${name}: where it is kept`, id, { only: next }))}
      />
      {does === 'surface' && fixtures.length > 0 && (
        <div className={classes.pair}>
          <span>By form</span>
          <NativeSelect
            size="xs"
            aria-label="The fixture that surfaces have to face"
            value={toward ?? NONE}
            data={[
              { value: NONE, label: 'all take it alike' },
              ...fixtures.map((fixture) => ({ value: fixture.id, label: `what faces ${fixture.name}` })),
            ]}
            onChange={({ currentTarget: { value } }) =>
              run(setTouch(`${name}: by form`, id, { toward: value === NONE ? undefined : value }))
            }
          />
        </div>
      )}
    </>
  );
}

/** Every stroke of a touch, each a picture of where it runs. */
function Strokes({ touch }: { touch: Touch }) {
  const plate = useScene(({ scene }) => scene.plate);
  const chosen = useView((view) => view.touchStroke);
  const setView = useView((view) => view.set);
  const size = { width: 36, height: (36 * plate.height) / plate.width };
  const stroke = chosen === undefined ? undefined : touch.strokes[chosen];
  return (
    <>
      {touch.strokes.length === 0 && <p className={classes.hint}>No stroke yet. Draw one on the picture.</p>}
      <ul className={own.strokes} aria-label={`Strokes of ${touch.name}`}>
        {touch.strokes.map((one, k) => (
          <li key={k}>
            <UnstyledButton
              aria-label={`Stroke ${k + 1}${one.erase ? ', takes off' : ''}`}
              aria-pressed={k === chosen}
              onClick={() => setView({ touchStroke: k === chosen ? undefined : k })}
            >
              <svg className={own.where} {...size} aria-hidden>
                <StrokeWay stroke={one} {...size} />
              </svg>
            </UnstyledButton>
          </li>
        ))}
      </ul>
      {stroke && chosen !== undefined && <ChosenStroke touch={touch} index={chosen} />}
    </>
  );
}

/** One stroke: how strong it is, and what becomes of it. */
function ChosenStroke({ touch, index }: { touch: Touch; index: number }) {
  const touches = useScene(({ scene }) => scene.touches);
  const run = useScene((state) => state.run);
  const change = useScene((state) => state.change);
  const setView = useView((view) => view.set);
  const { id, name } = touch;
  const stroke = touch.strokes[index];
  function setApart(): void {
    const apart = { id: crypto.randomUUID(), name: freeName(name.replace(/ \d+$/, ''), touches) };
    run(partStroke(id, index, apart));
    setView({ touch: apart.id });
  }
  return (
    <>
      <NumberRow
        label="Strength"
        value={stroke.strength}
        range={RANGES.strength}
        initial={1}
        onChange={(strength) => change(`touch ${id} stroke ${index}`, setStroke(id, index, strength))}
      />
      <div className={classes.actions}>
        <Button
          size="compact-xs"
          variant="default"
          onClick={() => {
            run(removeStroke(id, index));
            setView({ touchStroke: undefined });
          }}
        >
          Remove the stroke
        </Button>
        {!stroke.erase && (
          <Button size="compact-xs" variant="default" onClick={setApart}>
            Make it a touch of its own
          </Button>
        )}
      </div>
    </>
  );
}
