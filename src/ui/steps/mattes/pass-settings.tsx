'use client';

import { ActionIcon, Checkbox, NativeSelect, SegmentedControl, UnstyledButton } from '@mantine/core';
import { IconX } from '@tabler/icons-react';
import { JOINS, type Join, type Pass, type PassKind } from '@/core/matte/pass';
import { setMatte, setPass } from '@/core/scene/commands';
import { RANGES, type Range } from '@/core/fields/ranges';
import type { Matte } from '@/core/scene/schema';
import { PASS_NAMES } from '@/state/actions/matte-actions';
import { NumberRow } from '../../controls/number-row';
import { useScene, useView } from '../../editor/editor-context';
import { BrushSettings } from './brush-settings';
import own from '../../worksheet/lists.module.css';
import classes from '../../worksheet/worksheet.module.css';

/** What each kind asks of the person, while it is set. */
const HINTS: Record<PassKind, string> = {
  sky: 'Found by itself.',
  shadow: 'Found on the ground, where it is darker and no warmer than around. Paint in what it missed.',
  edge: 'Draw a rough loop around a thing, or stroke over it; its edge is found.',
  area: 'Click in the picture what it shall look like.',
  outline: 'Click points; drag them; double-click one to make it round. Delete removes one.',
  tone: 'Places of the plate that are as bright.',
  colour: 'Click a colour in the picture.',
  ramp: 'Drag its ends in the picture: full at the dot, nothing from the ring on.',
  paint: 'Paint on the picture. [ and ] set the size.',
  matte: 'As far as the other matte reaches, whatever becomes of it.',
};

const JOIN_TEXT: Record<Join, string> = { add: 'add', subtract: 'subtract', intersect: 'only where' };

/** One pass of a matte: how it joins the ones before it, and its own settings while it is the chosen one. */
export function PassSettings({ matte, pass, first }: { matte: Matte; pass: Pass; first: boolean }) {
  const run = useScene((state) => state.run);
  const change = useScene((state) => state.change);
  const mattes = useScene(({ scene }) => scene.mattes);
  const active = useView((view) => view.pass === pass.id);
  const following = useView((view) => view.following);
  const setView = useView((view) => view.set);
  const other = pass.kind === 'matte' && mattes.find(({ id }) => id === pass.matte);
  const name = other ? other.name : PASS_NAMES[pass.kind];
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
            label: first && value === 'subtract' ? 'all but' : JOIN_TEXT[value],
          }))}
          onChange={(event) => run(set('join', { join: event.currentTarget.value as Join }))}
        />
        <ActionIcon
          size={18}
          variant="subtle"
          color="gray"
          aria-label={`Remove the pass ${name.toLowerCase()}`}
          disabled={matte.passes.length === 1}
          onClick={() =>
            run(
              setMatte(`${matte.name}: remove a pass`, matte.id, {
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
          {(pass.kind === 'paint' || pass.kind === 'edge') && <BrushSettings matte={matte} pass={pass} />}
          {pass.kind === 'outline' && (
            <Checkbox
              size="xs"
              label="New points follow edges (Shift: straight)"
              checked={following}
              onChange={({ currentTarget: { checked } }) => setView({ following: checked })}
            />
          )}
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
              {pass.shape === 'round' && row('breadth', 'Breadth', pass.breadth, RANGES.breadth, 1)}
              {row('soft', 'Fall-off', pass.soft, RANGES.strength, 1)}
            </>
          )}
        </>
      )}
    </div>
  );
}
