'use client';

import { Button, Checkbox, Menu, SegmentedControl } from '@mantine/core';
import { isMadeOf } from '@/core/matte/inner-mattes';
import type { Pass } from '@/core/matte/pass';
import { COVERAGE_VIEWS, type CoverageView } from '@/core/matte/show-coverage';
import { usesOf } from '@/core/scene/matte-uses';
import { removeMatte, setMatte, setPlaces } from '@/core/scene/commands';
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
  const scene = useScene((state) => state.scene);
  const run = useScene((state) => state.run);
  const change = useScene((state) => state.change);
  const matteView = useView((view) => view.matteView);
  const setView = useView((view) => view.set);
  const { id, name, passes } = matte;
  const uses = usesOf(scene, id);
  const others = scene.mattes.filter((other) => !isMadeOf(scene.mattes, other.id, id));
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
  function add(pass: Pass, what: string): void {
    run(setMatte(`${name}: ${what}`, id, { passes: [...passes, pass] }));
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
      {light(false, 'Light inside')}
      {light(true, 'Light outside')}
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
    </section>
  );
}
