'use client';

import { Button } from '@mantine/core';
import { notifications } from '@mantine/notifications';
import { useState } from 'react';
import type { Alike } from '@/core/fixture/twins';
import { addCopies, unlinkFixture } from '@/core/scene/bulb-commands';
import type { Range } from '@/core/fields/ranges';
import { splitFixture } from '@/core/scene/many-commands';
import { MOST_FIXTURES, type Fixture } from '@/core/scene/schema';
import { besideCopy, gridOf, rowCopies, sampleOf, twinCopies, twinsIn } from '@/state/twins';
import { Fold } from '../controls/fold';
import { NumberRow } from '../controls/number-row';
import { TakeOrLeave } from '../controls/take-or-leave';
import { useScene, useSession, useView } from '../editor/editor-context';
import { useFinding } from '../editor/use-finding';
import own from './mattes.module.css';
import classes from './worksheet.module.css';

const COUNT: Range = { min: 1, max: 40, step: 1, unit: '', decimals: 0 };

/** How far to the right a row runs that keys alone make, fraction of the width. */
const ROW = 0.25;

/** More of the same: a copy, a row, the twins of a lamp in the plate; all of one bulb until one is made its own. */
export function ManyAlike({ fixture }: { fixture: Fixture }) {
  const { segmenter, scene: store } = useSession();
  const run = useScene((state) => state.run);
  const shared = useScene(({ scene }) =>
    fixture.bulb === undefined ? 0 : scene.fixtures.filter(({ bulb }) => bulb === fixture.bulb).length,
  );
  const { twins, rowing, finding, set: setView } = useView((view) => view);
  const find = useFinding('No twins could be looked for');
  const { id, name, foot } = fixture;

  const light = (label: string, copies: Fixture[]) => {
    if (copies.length > 0) run(addCopies(label, id, crypto.randomUUID(), copies));
  };

  async function findTwins(): Promise<void> {
    const { scene } = store.getState();
    const alike = await find(() => segmenter.findAlike(sampleOf(scene, fixture)));
    if (!alike) return;
    const found = twinsIn(store.getState().scene, fixture, alike);
    if (found.length > 0) return setView({ twins: { of: id, found } });
    notifications.show({ color: 'yellow', message: `Nothing else in this photo looks like ${name}.` });
  }

  return (
    <>
      <div className={classes.actions}>
        {finding ? (
          <Button size="compact-xs" variant="default" onClick={segmenter.cancel}>
            Give up looking
          </Button>
        ) : (
          <Button size="compact-xs" variant="default" onClick={() => void findTwins()}>
            Find its twins
          </Button>
        )}
        <Button
          size="compact-xs"
          variant={rowing ? 'filled' : 'default'}
          aria-pressed={rowing !== undefined}
          onClick={() => setView({ rowing: rowing === undefined ? 4 : undefined })}
        >
          Row
        </Button>
        <Button
          size="compact-xs"
          variant="default"
          onClick={() => light(`Copy ${name}`, besideCopy(store.getState().scene, fixture))}
        >
          Copy
        </Button>
        {shared > 1 && (
          <Button size="compact-xs" variant="default" onClick={() => run(unlinkFixture(id, name))}>
            {`One of ${shared}: on its own`}
          </Button>
        )}
      </div>
      {rowing !== undefined && (
        <>
          <NumberRow
            label="Copies"
            value={rowing}
            range={COUNT}
            initial={4}
            onChange={(count) => setView({ rowing: count })}
          />
          <p className={classes.hint}>
            Drag in the picture to where the last of the row stands on the ground.
          </p>
          <div className={classes.actions}>
            <Button
              size="compact-xs"
              variant="default"
              onClick={() => {
                const end = { u: foot.u + ROW, v: foot.v };
                light(`Row of ${name}`, rowCopies(store.getState().scene, fixture, end, rowing));
                setView({ rowing: undefined });
              }}
            >
              To the right
            </Button>
          </div>
        </>
      )}
      {fixture.kind === 'pane' && fixture.path.length === 4 && <Grid fixture={fixture} />}
      {twins?.of === id && <Twins fixture={fixture} found={twins.found} light={light} />}
    </>
  );
}

const GRID: Range = { min: 1, max: 12, step: 1, unit: '', decimals: 0 };
const GAP: Range = { min: 0, max: 0.9, step: 0.01, unit: '', decimals: 2 };

/** A pane over a whole front, parted into a grid of panes in its perspective. */
function Grid({ fixture }: { fixture: Fixture }) {
  const run = useScene((state) => state.run);
  const scene = useScene((state) => state.scene);
  const setView = useView((view) => view.set);
  const [open, setOpen] = useState(false);
  const [columns, setColumns] = useState(4);
  const [rows, setRows] = useState(3);
  const [gap, setGap] = useState(0.4);
  const room = MOST_FIXTURES - scene.fixtures.length + 1;
  return (
    <Fold title="Grid" says={`${columns} by ${rows}`} open={open} onToggle={() => setOpen(!open)}>
      <NumberRow label="Columns" value={columns} range={GRID} initial={4} onChange={setColumns} />
      <NumberRow label="Rows" value={rows} range={GRID} initial={3} onChange={setRows} />
      <NumberRow label="Between" value={gap} range={GAP} initial={0.4} onChange={setGap} />
      <div className={classes.actions}>
        <Button
          size="compact-xs"
          variant="default"
          disabled={columns * rows > room}
          onClick={() => {
            const parts = gridOf(scene, fixture, columns, rows, gap);
            run(splitFixture(`${fixture.name}: grid`, fixture.id, crypto.randomUUID(), parts));
            setView({ chosen: parts[0].id });
          }}
        >
          {`Part it into ${columns * rows}`}
        </Button>
      </div>
    </Fold>
  );
}

interface TwinsProps {
  fixture: Fixture;
  found: readonly Alike[];
  light: (label: string, copies: Fixture[]) => void;
}

/** The twins that were found, each to take or to leave. */
function Twins({ fixture, found, light }: TwinsProps) {
  const { scene: store } = useSession();
  const setView = useView((view) => view.set);
  const leave = (rest: readonly Alike[]) =>
    setView({ twins: rest.length > 0 ? { of: fixture.id, found: [...rest] } : undefined });
  const take = (taken: readonly Alike[]) =>
    light(
      taken.length > 1 ? `${taken.length} twins of ${fixture.name}` : `Twin of ${fixture.name}`,
      twinCopies(store.getState().scene, fixture, taken),
    );
  return (
    <>
      <ul className={own.list} aria-label="Twins">
        {found.map((twin, i) => (
          <TakeOrLeave
            key={`${twin.at.u} ${twin.at.v}`}
            label={`twin ${i + 1}`}
            onTake={() => {
              take([twin]);
              leave(found.filter((other) => other !== twin));
            }}
            onLeave={() => leave(found.filter((other) => other !== twin))}
          />
        ))}
      </ul>
      <div className={classes.actions}>
        <Button
          size="compact-xs"
          variant="default"
          onClick={() => {
            take(found);
            leave([]);
          }}
        >
          {`Light all ${found.length}`}
        </Button>
        <Button size="compact-xs" variant="default" onClick={() => leave([])}>
          Leave all
        </Button>
      </div>
    </>
  );
}
