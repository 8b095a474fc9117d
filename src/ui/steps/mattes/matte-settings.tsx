'use client';

import { Button, Checkbox, Menu, SegmentedControl } from '@mantine/core';
import { isMadeOf } from '@/core/matte/inner-mattes';
import type { Pass } from '@/core/matte/pass';
import { COVERAGE_VIEWS, type CoverageView } from '@/core/matte/show-coverage';
import { usesOf } from '@/core/scene/matte-uses';
import { removeMatte, setMatte, setPlaces } from '@/core/scene/matte-commands';
import { MOST_PASSES } from '@/core/matte/matte-schema';
import { RANGES } from '@/core/fields/ranges';
import type { Matte } from '@/core/scene/schema';
import {
  mattePass,
  newPass,
  OWN_KINDS,
  PASS_NAMES,
  placeStops,
  withPlace,
} from '@/state/actions/matte-actions';
import { NameField } from '../../controls/name-field';
import { NumberRow } from '../../controls/number-row';
import { useScene, useView } from '../../editor/editor-context';
import { PassSettings } from './pass-settings';
import own from '../../worksheet/lists.module.css';
import classes from '../../worksheet/worksheet.module.css';

const VIEW_TEXT: Record<CoverageView | 'off', string> = {
  tint: 'Tint',
  grey: 'Grey',
  cut: 'Cut out',
  off: 'Off',
};

const EDGE_ROWS = { refine: 'Refine', grow: 'Grow', feather: 'Feather' } as const;

/** All that is set on one matte. */
export function MatteSettings({ matte }: { matte: Matte }) {
  const run = useScene((state) => state.run);
  const { id, name, passes } = matte;
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
      <HowLookedAt />
      {passes.map((pass, index) => (
        <PassSettings key={pass.id} matte={matte} pass={pass} first={index === 0} />
      ))}
      <AnotherPass matte={matte} />
      <EdgeRows matte={matte} />
      <LightRow matte={matte} outside={false} label="Light inside" />
      <LightRow matte={matte} outside={true} label="Light outside" />
      <UsesAndRemove matte={matte} />
    </section>
  );
}

function HowLookedAt() {
  const matteView = useView((view) => view.matteView);
  const setView = useView((view) => view.set);
  return (
    <SegmentedControl
      fullWidth
      size="xs"
      aria-label="How the matte is looked at"
      value={matteView}
      data={[...COVERAGE_VIEWS, 'off' as const].map((value) => ({ value, label: VIEW_TEXT[value] }))}
      onChange={(next) => setView({ matteView: next })}
    />
  );
}

function AnotherPass({ matte: { id, name, passes } }: { matte: Matte }) {
  const mattes = useScene(({ scene }) => scene.mattes);
  const run = useScene((state) => state.run);
  const setView = useView((view) => view.set);
  const others = mattes.filter((other) => !isMadeOf(mattes, other.id, id));
  function add(pass: Pass, what: string): void {
    run(setMatte(`${name}: ${what}`, id, { passes: [...passes, pass] }));
    setView({ pass: pass.id });
  }
  return (
    <Menu position="bottom-start" width={180}>
      <Menu.Target>
        <Button size="compact-xs" variant="default" disabled={passes.length >= MOST_PASSES}>
          Another pass
        </Button>
      </Menu.Target>
      <Menu.Dropdown>
        {OWN_KINDS.map((kind) => (
          <Menu.Item key={kind} onClick={() => add(newPass(kind), PASS_NAMES[kind].toLowerCase())}>
            {PASS_NAMES[kind]}
          </Menu.Item>
        ))}
        {others.length > 0 && <Menu.Label>What another matte covers</Menu.Label>}
        {others.map((other) => (
          <Menu.Item key={other.id} onClick={() => add(mattePass(other.id), other.name)}>
            {other.name}
          </Menu.Item>
        ))}
      </Menu.Dropdown>
    </Menu>
  );
}

function EdgeRows({ matte }: { matte: Matte }) {
  const run = useScene((state) => state.run);
  const change = useScene((state) => state.change);
  const { id, name } = matte;
  return (
    <>
      {(['refine', 'grow', 'feather'] as const).map((key) => (
        <NumberRow
          key={key}
          label={EDGE_ROWS[key]}
          value={matte[key]}
          range={RANGES[key]}
          initial={0}
          onChange={(value) =>
            change(`matte ${id} ${key}`, setMatte(`${name}: ${key}`, id, { [key]: value }))
          }
        />
      ))}
      <Checkbox
        size="xs"
        label="Invert"
        checked={matte.invert}
        onChange={({ currentTarget: { checked } }) =>
          run(setMatte(`${name}: invert`, id, { invert: checked }))
        }
      />
    </>
  );
}

/** The night's own light inside or outside of a matte. */
function LightRow({ matte, outside, label }: { matte: Matte; outside: boolean; label: string }) {
  const scene = useScene((state) => state.scene);
  const change = useScene((state) => state.change);
  const { id, name } = matte;
  return (
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
}

function UsesAndRemove({ matte: { id } }: { matte: Matte }) {
  const scene = useScene((state) => state.scene);
  const run = useScene((state) => state.run);
  const setView = useView((view) => view.set);
  const uses = usesOf(scene, id);
  return (
    <>
      {uses.length > 0 && <p className={classes.hint}>Used by {uses.join(', ')}.</p>}
      <div className={classes.actions}>
        <Button
          size="compact-xs"
          variant="default"
          onClick={() => {
            run(removeMatte(id));
            setView({ matte: undefined, pass: undefined });
          }}
        >
          {uses.length > 0 ? 'Remove it wherever it is used' : 'Remove'}
        </Button>
      </div>
    </>
  );
}
