'use client';

import {
  ActionIcon,
  Button,
  Checkbox,
  Menu,
  NativeSelect,
  SegmentedControl,
  UnstyledButton,
} from '@mantine/core';
import { IconX } from '@tabler/icons-react';
import { JOINS, type Join, type Pass, type PassKind } from '@/core/matte/pass';
import { COVERAGE_VIEWS, type CoverageView } from '@/core/matte/show-coverage';
import { addMatte, removeMatte, setMatte, setPass, setPlaces } from '@/core/scene/commands';
import { RANGES, type Range } from '@/core/scene/ranges';
import type { Matte } from '@/core/scene/schema';
import { MOST_PASSES } from '@/core/scene/matte-schema';
import { newMatte, newPass, PASS_NAMES, placeStops, withPlace } from '@/state/matte-actions';
import { NameField } from '../controls/name-field';
import { NumberRow } from '../controls/number-row';
import { useScene, useView } from '../editor/editor-context';
import own from './mattes.module.css';
import classes from './worksheet.module.css';

const KINDS = Object.keys(PASS_NAMES) as PassKind[];

/** What each kind asks of the person, while it is set. */
const HINTS: Record<PassKind, string> = {
  sky: 'Found by itself.',
  area: 'Click in the picture what it shall look like.',
  outline: 'Click points in the picture; drag them; Delete takes one away.',
  tone: 'Places of the plate that are as bright.',
  colour: 'Click a colour in the picture.',
  ramp: 'Drag its ends in the picture: full at the dot, nothing from the ring on.',
};

const JOIN_TEXT: Record<Join, string> = { add: 'add', cut: 'cut out', meet: 'only where' };
const VIEW_TEXT: Record<CoverageView | 'off', string> = {
  tint: 'Tint',
  grey: 'Grey',
  cut: 'Cut out',
  off: 'Off',
};

/** Mattes: said once what is where, named, and used to lift or lower the night's light there. */
export function MattesStep() {
  const scene = useScene((state) => state.scene);
  const run = useScene((state) => state.run);
  const chosen = useView((view) => view.matte);
  const setView = useView((view) => view.set);
  const matte = scene.mattes.find(({ id }) => id === chosen);

  function begin(kind: PassKind): void {
    const made = newMatte(scene, kind);
    run(addMatte(made));
    setView({ matte: made.id, pass: made.passes[0].id });
  }

  return (
    <>
      <ul className={own.list} aria-label="Mattes">
        {scene.mattes.map((item) => {
          const uses = scene.places.filter((place) => place.matte === item.id).length;
          return (
            <li key={item.id}>
              <UnstyledButton
                className={own.item}
                aria-pressed={item.id === chosen}
                onClick={() =>
                  setView({ matte: item.id === chosen ? undefined : item.id, pass: item.passes[0]?.id })
                }
              >
                {item.name}
                <span>{uses > 0 ? 'lights the night' : 'not used'}</span>
              </UnstyledButton>
            </li>
          );
        })}
      </ul>
      {scene.mattes.length === 0 && (
        <p className={classes.hint}>No matte yet. Begin one: the sky takes a single click.</p>
      )}
      <div className={classes.actions}>
        {KINDS.map((kind) => (
          <Button key={kind} size="compact-xs" variant="default" onClick={() => begin(kind)}>
            {PASS_NAMES[kind]}
          </Button>
        ))}
      </div>
      {matte && <MatteSettings key={matte.id} matte={matte} />}
    </>
  );
}

function MatteSettings({ matte }: { matte: Matte }) {
  const scene = useScene((state) => state.scene);
  const run = useScene((state) => state.run);
  const change = useScene((state) => state.change);
  const matteView = useView((view) => view.matteView);
  const setView = useView((view) => view.set);
  const { id, name, passes } = matte;
  const used = scene.places.some((place) => place.matte === id);
  const light = (outside: boolean, label: string) => (
    <NumberRow
      label={label}
      value={placeStops(scene, id, outside)}
      range={RANGES.place}
      initial={0}
      onChange={(stops) =>
        change(
          `place ${id} ${outside}`,
          setPlaces(`${name}: ${label.toLowerCase()}`, withPlace(scene, { matte: id, outside, stops })),
        )
      }
    />
  );
  function add(kind: PassKind): void {
    const pass = newPass(kind);
    run(setMatte(`${name}: ${PASS_NAMES[kind].toLowerCase()}`, id, { passes: [...passes, pass] }));
    setView({ pass: pass.id });
  }
  return (
    <section className={own.settings} aria-label={name}>
      <div className={classes.pair}>
        <span>Name</span>
        <NameField
          label="Matte name"
          value={name}
          onCommit={(next) => run(setMatte('Name', id, { name: next }))}
        />
      </div>
      <SegmentedControl
        fullWidth
        size="xs"
        aria-label="How the matte is looked at"
        value={matteView}
        data={[...COVERAGE_VIEWS, 'off' as const].map((value) => ({ value, label: VIEW_TEXT[value] }))}
        onChange={(next) => setView({ matteView: next })}
      />
      {passes.map((pass, index) => (
        <PassSettings key={pass.id} matte={matte} pass={pass} first={index === 0} />
      ))}
      <Menu position="bottom-start" width={140}>
        <Menu.Target>
          <Button size="compact-xs" variant="default" disabled={passes.length >= MOST_PASSES}>
            Another pass
          </Button>
        </Menu.Target>
        <Menu.Dropdown>
          {KINDS.map((kind) => (
            <Menu.Item key={kind} onClick={() => add(kind)}>
              {PASS_NAMES[kind]}
            </Menu.Item>
          ))}
        </Menu.Dropdown>
      </Menu>
      <NumberRow
        label="Feather"
        value={matte.feather}
        range={RANGES.feather}
        initial={0}
        onChange={(feather) => change(`matte ${id} feather`, setMatte(`${name}: feather`, id, { feather }))}
      />
      <Checkbox
        size="xs"
        label="Invert"
        checked={matte.invert}
        onChange={({ currentTarget: { checked } }) =>
          run(setMatte(`${name}: invert`, id, { invert: checked }))
        }
      />
      {light(false, 'Light inside')}
      {light(true, 'Light outside')}
      <div className={classes.actions}>
        <Button
          size="compact-xs"
          variant="default"
          onClick={() => {
            run(removeMatte(id));
            setView({ matte: undefined, pass: undefined });
          }}
        >
          {used ? 'Take it away, and its light' : 'Take it away'}
        </Button>
      </div>
    </section>
  );
}

function PassSettings({ matte, pass, first }: { matte: Matte; pass: Pass; first: boolean }) {
  const run = useScene((state) => state.run);
  const change = useScene((state) => state.change);
  const active = useView((view) => view.pass === pass.id);
  const setView = useView((view) => view.set);
  const name = PASS_NAMES[pass.kind];
  const set = (label: string, values: Partial<Pass>) =>
    setPass(`${matte.name}: ${label}`, matte.id, pass.id, values);
  const row = (key: string, label: string, value: number, range: Range, initial: number) => (
    <NumberRow
      label={label}
      value={value}
      range={range}
      initial={initial}
      onChange={(next) => change(`pass ${pass.id} ${key}`, set(label.toLowerCase(), { [key]: next }))}
    />
  );
  return (
    <div className={own.pass} data-active={active || undefined}>
      <div className={own.head}>
        <UnstyledButton aria-pressed={active} onClick={() => setView({ pass: pass.id })}>
          {name}
        </UnstyledButton>
        <NativeSelect
          size="xs"
          aria-label={`How ${name.toLowerCase()} joins`}
          value={pass.join}
          data={JOINS.map((value) => ({
            value,
            label: first && value === 'cut' ? 'all but' : JOIN_TEXT[value],
          }))}
          onChange={(event) => run(set('join', { join: event.currentTarget.value as Join }))}
        />
        <ActionIcon
          size={18}
          variant="subtle"
          color="gray"
          aria-label={`Take the pass ${name.toLowerCase()} away`}
          disabled={matte.passes.length === 1}
          onClick={() =>
            run(
              setMatte(`${matte.name}: take a pass away`, matte.id, {
                passes: matte.passes.filter(({ id }) => id !== pass.id),
              }),
            )
          }
        >
          <IconX size={12} />
        </ActionIcon>
      </div>
      {active && (
        <>
          <p className={classes.hint}>{HINTS[pass.kind]}</p>
          {pass.kind === 'area' && (
            <>
              {row('tolerance', 'Tolerance', pass.tolerance, RANGES.tolerance, 0.1)}
              <Checkbox
                size="xs"
                label="Only what hangs together"
                checked={pass.connected}
                onChange={({ currentTarget: { checked } }) => run(set('connected', { connected: checked }))}
              />
            </>
          )}
          {pass.kind === 'tone' && (
            <>
              {row('low', 'From', pass.low, RANGES.tone, 0.6)}
              {row('high', 'To', pass.high, RANGES.tone, 1)}
              {row('soft', 'Shoulder', pass.soft, RANGES.shoulder, 0.1)}
            </>
          )}
          {pass.kind === 'colour' && (
            <>
              {row('reach', 'Reach', pass.reach, RANGES.reach, 0.04)}
              {row('soft', 'Shoulder', pass.soft, RANGES.shoulder, 0.04)}
            </>
          )}
          {pass.kind === 'ramp' && (
            <>
              <SegmentedControl
                size="xs"
                aria-label="Shape of the ramp"
                value={pass.shape}
                data={[
                  { value: 'straight', label: 'Straight' },
                  { value: 'round', label: 'Round' },
                ]}
                onChange={(shape) => run(set('shape', { shape: shape }))}
              />
              {row('soft', 'Fall-off', pass.soft, RANGES.strength, 1)}
            </>
          )}
        </>
      )}
    </div>
  );
}
