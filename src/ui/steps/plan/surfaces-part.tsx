'use client';

import { Button, Menu, UnstyledButton } from '@mantine/core';
import { notifications } from '@mantine/notifications';
import { useStore } from 'zustand';
import { middleOfCoverage, type CoveragePicture } from '@/core/matte/coverage-picture';
import type { Command } from '@/core/scene/command';
import { addSurface, type SurfaceKind } from '@/core/scene/commands';
import { MOST_SURFACES } from '@/core/plan/plan-schema';
import type { Matte, Scene } from '@/core/scene/schema';
import { newGloss } from '@/state/actions/gloss-actions';
import { lowestOf, newDeck, newStandee, newWall } from '@/state/actions/plan-actions';
import { useScene, useSession, useView } from '../../editor/editor-context';
import own from '../../worksheet/lists.module.css';
import { GroundSettings, SurfaceSettings } from './surface-settings';
import classes from '../../worksheet/worksheet.module.css';

const KINDS: SurfaceKind[] = ['walls', 'standees', 'decks', 'glosses'];
const ONE: Record<SurfaceKind, string> = {
  walls: 'wall',
  standees: 'standee',
  decks: 'deck',
  glosses: 'gloss',
};

/** Chosen as a surface is: no other has this id. */
const GROUND = 'ground';

/** Where keys alone put a new surface. */
const MIDDLE = { from: { u: 0.3, v: 0.7 }, to: { u: 0.7, v: 0.75 } };

/** A matte that stands on its lowest place. */
const stoodUp: OfAMatteProps['make'] = (scene, matte, covered) => {
  const foot = lowestOf(covered);
  if (!foot) return undefined;
  const surface = newStandee(scene, matte, foot);
  return { surface, command: addSurface(`Stand up ${matte.name}`, 'standees', surface) };
};

/** A matte that shines as what it lies on is turned. */
const madeToShine: OfAMatteProps['make'] = (scene, matte, covered) => {
  const middle = middleOfCoverage(covered);
  if (!middle) return undefined;
  const surface = newGloss(scene, matte, middle);
  return { surface, command: addSurface(`Let ${matte.name} shine`, 'glosses', surface) };
};

/** Walls, standees, decks and glosses: what light lands on beside the ground. */
export function SurfacesPart() {
  const plan = useScene(({ scene }) => scene.plan);
  const chosen = useView((view) => view.surface);
  const drawing = useView((view) => view.drawing);
  const setView = useView((view) => view.set);

  const item = (id: string, name: string, kind: string) => (
    <li key={id}>
      <UnstyledButton
        className={own.item}
        aria-pressed={id === chosen}
        onClick={() => setView({ surface: id === chosen ? undefined : id })}
      >
        {name}
        <span>{kind}</span>
      </UnstyledButton>
    </li>
  );
  return (
    <>
      <ul className={own.list} aria-label="Surfaces">
        {item(GROUND, 'Ground', 'level')}
        {KINDS.flatMap((kind) => plan[kind].map(({ id, name }) => item(id, name, ONE[kind])))}
      </ul>
      <div className={classes.actions}>
        <Draw kind="wall" label="Draw a wall" />
        <Draw kind="deck" label="Draw a deck" />
        <OfAMatte kind="standees" label="Stand a matte up" make={stoodUp} />
        <OfAMatte kind="glosses" label="Let a matte shine" make={madeToShine} />
      </div>
      <p className={classes.hint}>
        {drawing === 'wall'
          ? 'Drag along the foot of a wall: it follows edges of the plate, with Alt it goes free. Begin at a wall’s end to go on round a corner.'
          : drawing === 'deck'
            ? 'Drag across a kerb, a platform or the water; then drag its corners and set its height.'
            : 'Light lands on walls, decks and whatever stands up, and falls behind them as shadow.'}
      </p>
      {chosen === GROUND && <GroundSettings />}
      {KINDS.map((kind) => {
        const surface = plan[kind].find(({ id }) => id === chosen);
        return surface && <SurfaceSettings key={surface.id} kind={kind} surface={surface} />;
      })}
    </>
  );
}

const isFull = ({ plan }: Scene, kind: SurfaceKind) => plan[kind].length >= MOST_SURFACES;

/** Whether the next drag draws a wall or a deck; the Enter key puts one in the middle. */
function Draw({ kind, label }: { kind: 'wall' | 'deck'; label: string }) {
  const scene = useScene((state) => state.scene);
  const run = useScene((state) => state.run);
  const drawing = useView((view) => view.drawing);
  const setView = useView((view) => view.set);
  return (
    <Button
      size="compact-xs"
      variant={drawing === kind ? 'filled' : 'default'}
      aria-pressed={drawing === kind}
      disabled={isFull(scene, kind === 'wall' ? 'walls' : 'decks')}
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
}

interface OfAMatteProps {
  kind: 'standees' | 'glosses';
  label: string;
  /** What becomes of a matte and what it covers; undefined where it covers nothing. */
  make: (
    scene: Scene,
    matte: Matte,
    covered: CoveragePicture,
  ) => { surface: { id: string }; command: Command } | undefined;
}

/** Makes a surface of a matte. */
function OfAMatte({ kind, label, make }: OfAMatteProps) {
  const scene = useScene((state) => state.scene);
  const run = useScene((state) => state.run);
  const setView = useView((view) => view.set);
  const { readout } = useSession();
  const coverage = useStore(readout, (state) => state.coverage);
  const { mattes } = scene;

  async function use(matte: Matte): Promise<void> {
    const made = coverage && make(scene, matte, await coverage(scene, matte.id));
    if (!made) {
      notifications.show({
        color: 'yellow',
        message: `${matte.name} covers nothing yet. Draw it in Mattes first.`,
      });
      return;
    }
    run(made.command);
    setView({ surface: made.surface.id, drawing: undefined });
  }

  return (
    <Menu position="bottom-start" width={180}>
      <Menu.Target>
        <Button size="compact-xs" variant="default" disabled={mattes.length === 0 || isFull(scene, kind)}>
          {label}
        </Button>
      </Menu.Target>
      <Menu.Dropdown>
        {mattes.map((matte) => (
          <Menu.Item key={matte.id} onClick={() => void use(matte)}>
            {matte.name}
          </Menu.Item>
        ))}
      </Menu.Dropdown>
    </Menu>
  );
}
