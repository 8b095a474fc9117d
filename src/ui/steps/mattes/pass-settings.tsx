'use client';

import { ActionIcon, Checkbox, NativeSelect, SegmentedControl, UnstyledButton } from '@mantine/core';
import { IconX } from '@tabler/icons-react';
import type { ReactNode } from 'react';
import { JOINS, type AreaPass, type Join, type Pass, type PassKind, type RampPass } from '@/core/matte/pass';
import { setMatte, setPass } from '@/core/scene/matte-commands';
import { RANGES, type Range } from '@/core/fields/ranges';
import type { Matte } from '@/core/scene/schema';
import { PASS_NAMES } from '@/state/actions/matte-actions';
import { NumberRow } from '../../controls/number-row';
import { useScene, useView } from '../../editor/editor-context';
import { BrushSettings } from './brush-settings';
import lists from '../../worksheet/lists.module.css';
import classes from '../../worksheet/worksheet.module.css';

/** What each kind asks of the person, while it is set. */
const HINTS: Record<PassKind, string> = {
  sky: 'Found by itself.',
  shadow: 'Found on the ground, where it is darker and no warmer than around. Paint in what it missed.',
  edge: 'Draw a rough loop around a thing, or stroke over it; its edge is found.',
  area: 'Click something in the picture that it should look like.',
  outline: 'Click points; drag them; double-click one to make it round. Delete removes one.',
  tone: 'Places of the plate that are as bright.',
  colour: 'Click a colour in the picture.',
  ramp: 'Drag its ends in the picture: full at the dot, nothing from the ring on.',
  paint: 'Paint on the picture. [ and ] set the size.',
  matte: 'As far as the other matte reaches, whatever becomes of it.',
};

const JOIN_TEXT: Record<Join, string> = { add: 'add', subtract: 'subtract', intersect: 'only where' };

interface PassProps<Own extends Pass = Pass> {
  matte: Matte;
  pass: Own;
}

const setOf = ({ matte, pass }: PassProps, label: string, values: Partial<Pass>) =>
  setPass(`${matte.name}: ${label}`, matte.id, pass.id, values);

/** One pass of a matte: how it joins the ones before it, and its own settings while it is the chosen one. */
export function PassSettings({ first, ...own }: PassProps & { first: boolean }) {
  const active = useView((view) => view.pass === own.pass.id);
  return (
    <div className={lists.pass} data-active={active || undefined}>
      <PassHead {...own} first={first} active={active} />
      {active && (
        <>
          <p className={classes.hint}>{HINTS[own.pass.kind]}</p>
          <PassRows {...own} />
        </>
      )}
    </div>
  );
}

function PassHead({ matte, pass, first, active }: PassProps & { first: boolean; active: boolean }) {
  const run = useScene((state) => state.run);
  const mattes = useScene(({ scene }) => scene.mattes);
  const setView = useView((view) => view.set);
  const other = pass.kind === 'matte' && mattes.find(({ id }) => id === pass.matte);
  const name = other ? other.name : PASS_NAMES[pass.kind];
  const left = matte.passes.filter(({ id }) => id !== pass.id);
  return (
    <div className={lists.head}>
      <UnstyledButton aria-pressed={active} onClick={() => setView({ pass: pass.id })}>
        {name}
      </UnstyledButton>
      <NativeSelect
        size="xs"
        aria-label={`How ${name.toLowerCase()} joins`}
        value={pass.join}
        data={JOINS.map((value) => ({
          value,
          label: first && value === 'subtract' ? 'all but' : JOIN_TEXT[value],
        }))}
        onChange={(event) => run(setOf({ matte, pass }, 'join', { join: event.currentTarget.value as Join }))}
      />
      <ActionIcon
        size={18}
        variant="subtle"
        color="gray"
        aria-label={`Remove the pass ${name.toLowerCase()}`}
        disabled={left.length === 0}
        onClick={() => run(setMatte(`${matte.name}: remove a pass`, matte.id, { passes: left }))}
      >
        <IconX size={12} />
      </ActionIcon>
    </div>
  );
}

/** What is set on a pass of its kind. */
function PassRows({ matte, pass }: PassProps) {
  const change = useScene((state) => state.change);
  const row: Row = (key, label, value, range, initial) => (
    <NumberRow
      label={label}
      value={value}
      range={range}
      initial={initial}
      onChange={(next) =>
        change(`pass ${pass.id} ${key}`, setOf({ matte, pass }, label.toLowerCase(), { [key]: next }))
      }
    />
  );
  switch (pass.kind) {
    case 'paint':
    case 'edge':
      return <BrushSettings matte={matte} pass={pass} />;
    case 'outline':
      return <Following />;
    case 'area':
      return <AreaRows matte={matte} pass={pass} row={row} />;
    case 'tone':
      return (
        <>
          {row('low', 'From', pass.low, RANGES.tone, 0.6)}
          {row('high', 'To', pass.high, RANGES.tone, 1)}
          {row('soft', 'Shoulder', pass.soft, RANGES.shoulder, 0.1)}
        </>
      );
    case 'colour':
      return (
        <>
          {row('reach', 'Reach', pass.reach, RANGES.reach, 0.04)}
          {row('soft', 'Shoulder', pass.soft, RANGES.shoulder, 0.04)}
        </>
      );
    case 'ramp':
      return <RampRows matte={matte} pass={pass} row={row} />;
    default:
      return null;
  }
}

type Row = (key: string, label: string, value: number, range: Range, initial: number) => ReactNode;

function Following() {
  const following = useView((view) => view.following);
  const setView = useView((view) => view.set);
  return (
    <Checkbox
      size="xs"
      label="New points follow edges (Shift: straight)"
      checked={following}
      onChange={({ currentTarget: { checked } }) => setView({ following: checked })}
    />
  );
}

function AreaRows({ row, ...own }: PassProps<AreaPass> & { row: Row }) {
  const run = useScene((state) => state.run);
  const { tolerance, connected } = own.pass;
  return (
    <>
      {row('tolerance', 'Tolerance', tolerance, RANGES.tolerance, 0.1)}
      <Checkbox
        size="xs"
        label="Only what hangs together"
        checked={connected}
        onChange={({ currentTarget: { checked } }) => run(setOf(own, 'connected', { connected: checked }))}
      />
    </>
  );
}

function RampRows({ row, ...own }: PassProps<RampPass> & { row: Row }) {
  const run = useScene((state) => state.run);
  const { shape, breadth, soft } = own.pass;
  return (
    <>
      <SegmentedControl
        size="xs"
        aria-label="Shape of the ramp"
        value={shape}
        data={[
          { value: 'straight', label: 'Straight' },
          { value: 'round', label: 'Round' },
        ]}
        onChange={(next) => run(setOf(own, 'shape', { shape: next }))}
      />
      {shape === 'round' && row('breadth', 'Breadth', breadth, RANGES.breadth, 1)}
      {row('soft', 'Fall-off', soft, RANGES.strength, 1)}
    </>
  );
}
