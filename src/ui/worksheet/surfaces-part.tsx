'use client';

import { Button, Menu, NativeSelect, UnstyledButton } from '@mantine/core';
import { notifications } from '@mantine/notifications';
import { useStore } from 'zustand';
import { addSurface, removeSurface, setSurface, type SurfaceKind } from '@/core/scene/commands';
import { MOST_SURFACES } from '@/core/scene/plan-schema';
import { RANGES } from '@/core/scene/ranges';
import type { GroundPlan, Matte } from '@/core/scene/schema';
import { lowestOf, newDeck, newStandee, newWall } from '@/state/plan-actions';
import { NameField } from '../controls/name-field';
import { NumberRow, ratioScale } from '../controls/number-row';
import { useScene, useSession, useView } from '../editor/editor-context';
import own from './mattes.module.css';
import classes from './worksheet.module.css';

const KINDS: SurfaceKind[] = ['walls', 'standees', 'decks'];
const ONE: Record<SurfaceKind, string> = { walls: 'wall', standees: 'standee', decks: 'deck' };

/** Where keys alone put a new surface. */
const MIDDLE = { from: { u: 0.3, v: 0.7 }, to: { u: 0.7, v: 0.75 } };

/** Walls, standees and decks: what light lands on beside the ground. */
export function SurfacesPart() {
  const scene = useScene((state) => state.scene);
  const run = useScene((state) => state.run);
  const chosen = useView((view) => view.surface);
  const drawing = useView((view) => view.drawing);
  const setView = useView((view) => view.set);
  const { readout } = useSession();
  const coverage = useStore(readout, (state) => state.coverage);
  const { plan, mattes } = scene;
  const full = (kind: SurfaceKind) => plan[kind].length >= MOST_SURFACES;

  async function standUp(matte: Matte): Promise<void> {
    const foot = coverage && lowestOf(await coverage(scene, matte.id));
    if (!foot) {
      notifications.show({
        color: 'yellow',
        message: `${matte.name} covers nothing yet. Draw it in Mattes first.`,
      });
      return;
    }
    const standee = newStandee(scene, matte, foot);
    run(addSurface(`Stand up ${matte.name}`, 'standees', standee));
    setView({ surface: standee.id, drawing: undefined });
  }

  const draw = (kind: 'wall' | 'deck', label: string) => (
    <Button
      size="compact-xs"
      variant={drawing === kind ? 'filled' : 'default'}
      aria-pressed={drawing === kind}
      disabled={full(kind === 'wall' ? 'walls' : 'decks')}
      onClick={() => setView({ drawing: drawing === kind ? undefined : kind })}
      onKeyDown={(event) => {
        if (event.key !== 'Enter') return;
        event.preventDefault();
        const { from, to } = MIDDLE;
        if (kind === 'wall') run(addSurface('Wall', 'walls', newWall(scene, from, to)));
        else run(addSurface('Deck', 'decks', newDeck(scene, from, to)));
      }}
    >
      {label}
    </Button>
  );
  return (
    <>
      <ul className={own.list} aria-label="Surfaces">
        {KINDS.flatMap((kind) =>
          plan[kind].map(({ id, name }) => (
            <li key={id}>
              <UnstyledButton
                className={own.item}
                aria-pressed={id === chosen}
                onClick={() => setView({ surface: id === chosen ? undefined : id })}
              >
                {name}
                <span>{ONE[kind]}</span>
              </UnstyledButton>
            </li>
          )),
        )}
      </ul>
      <div className={classes.actions}>
        {draw('wall', 'Draw a wall')}
        {draw('deck', 'Draw a deck')}
        <Menu position="bottom-start" width={180}>
          <Menu.Target>
            <Button size="compact-xs" variant="default" disabled={mattes.length === 0 || full('standees')}>
              Stand a matte up
            </Button>
          </Menu.Target>
          <Menu.Dropdown>
            {mattes.map((matte) => (
              <Menu.Item key={matte.id} onClick={() => void standUp(matte)}>
                {matte.name}
              </Menu.Item>
            ))}
          </Menu.Dropdown>
        </Menu>
      </div>
      <p className={classes.hint}>
        {drawing === 'wall'
          ? 'Drag along the foot of a wall. Begin at a wall’s end to go on round a corner.'
          : drawing === 'deck'
            ? 'Drag across a kerb, a platform or the water; then drag its corners and set its height.'
            : 'Light lands on walls, decks and whatever stands up, and falls behind them as shadow.'}
      </p>
      {KINDS.map((kind) => {
        const surface = plan[kind].find(({ id }) => id === chosen);
        return surface && <SurfaceSettings key={surface.id} kind={kind} surface={surface} />;
      })}
    </>
  );
}

interface SettingsProps {
  kind: SurfaceKind;
  surface: GroundPlan[SurfaceKind][number];
}

function SurfaceSettings({ kind, surface }: SettingsProps) {
  const run = useScene((state) => state.run);
  const change = useScene((state) => state.change);
  const setView = useView((view) => view.set);
  const { id, name } = surface;
  const mattes = useScene(({ scene }) => scene.mattes);
  const form = (key: 'roundness' | 'crease', label: string, value: number, initial: number) => (
    <NumberRow
      label={label}
      value={value}
      range={RANGES.strength}
      initial={initial}
      onChange={(next) =>
        change(
          `surface ${id} ${key}`,
          setSurface(`${name}: ${label.toLowerCase()}`, kind, id, { [key]: next }),
        )
      }
    />
  );
  const range = kind === 'walls' ? RANGES.wallHeight : RANGES.deckHeight;
  return (
    <section className={own.settings} aria-label={name}>
      <div className={classes.pair}>
        <span>Name</span>
        <NameField
          label="Surface name"
          value={name}
          onCommit={(next) => run(setSurface('Name', kind, id, { name: next }))}
        />
      </div>
      {'height' in surface && (
        <NumberRow
          label="Height"
          value={surface.height}
          range={range}
          initial={kind === 'walls' ? 4 : 0.15}
          scale={kind === 'walls' ? ratioScale(range) : undefined}
          onChange={(height) =>
            change(`surface ${id} height`, setSurface(`${name}: height`, kind, id, { height }))
          }
        />
      )}
      {'foot' in surface && 'height' in surface && (
        <div className={classes.pair}>
          <span>Only within</span>
          <NativeSelect
            aria-label="Matte at which the wall ends"
            size="xs"
            value={surface.until ?? ''}
            data={[
              { value: '', label: 'all of it' },
              ...mattes.map((matte) => ({ value: matte.id, label: matte.name })),
            ]}
            onChange={({ currentTarget: { value } }) =>
              run(setSurface(`${name}: where it ends`, kind, id, { until: value || undefined }))
            }
          />
        </div>
      )}
      {'roundness' in surface && (
        <>
          {form('roundness', 'Roundness', surface.roundness, 0.5)}
          {form('crease', 'Crease', surface.crease, 0.3)}
        </>
      )}
      <div className={classes.actions}>
        <Button
          size="compact-xs"
          variant="default"
          onClick={() => {
            run(removeSurface(`Take ${name} away`, kind, id));
            setView({ surface: undefined });
          }}
        >
          Take it away
        </Button>
      </div>
    </section>
  );
}
