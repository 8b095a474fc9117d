'use client';

import { Button } from '@mantine/core';
import { removeSurface, setGround, setSurface, type SurfaceKind } from '@/core/scene/commands';
import { RANGES } from '@/core/fields/ranges';
import type { GroundPlan } from '@/core/scene/schema';
import { footGoneOn } from '@/state/actions/plan-actions';
import { MatteSelect } from '../../controls/matte-select';
import { NameField } from '../../controls/name-field';
import { NumberRow, ratioScale } from '../../controls/number-row';
import { useScene, useView } from '../../editor/editor-context';
import { BoxRows } from './box-rows';
import { MirrorsRow } from './mirrors-row';
import { SlopeRows } from './slope-rows';
import { GlossRows } from './gloss-rows';
import { FinishRows } from './finish-rows';
import own from '../../worksheet/lists.module.css';
import classes from '../../worksheet/worksheet.module.css';

interface SettingsProps {
  kind: SurfaceKind;
  surface: GroundPlan[SurfaceKind][number];
}

/** What is set of the chosen wall, standee, deck or gloss. */
export function SurfaceSettings({ kind, surface }: SettingsProps) {
  const run = useScene((state) => state.run);
  const change = useScene((state) => state.change);
  const { id, name } = surface;
  const range = kind === 'walls' ? RANGES.wallHeight : RANGES.deckHeight;
  const set = (key: string, label: string, values: Partial<GroundPlan[SurfaceKind][number]>) =>
    change(`surface ${id} ${key}`, setSurface(`${name}: ${label.toLowerCase()}`, kind, id, values));
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
          onChange={(height) => set('height', 'Height', { height })}
        />
      )}
      {'outline' in surface && <SlopeRows deck={surface} />}
      {'foot' in surface && 'height' in surface && <WallRows wall={surface} />}
      {'lean' in surface && <GlossRows gloss={surface} />}
      {'roundness' in surface && 'foot' in surface && <BoxRows standee={surface} />}
      {'roundness' in surface && 'foot' in surface && (
        <NumberRow
          label="Roundness"
          value={surface.roundness}
          range={RANGES.strength}
          initial={0.5}
          onChange={(roundness) => set('roundness', 'Roundness', { roundness })}
        />
      )}
      {'crease' in surface && (
        <FinishRows
          finish={surface}
          crease={'roundness' in surface ? 0.3 : 0}
          onSet={(key, label, value) => set(key, label, { [key]: value })}
          onTake={(label, finish) => run(setSurface(`${name}: ${label}`, kind, id, finish))}
        />
      )}
      <RemoveIt kind={kind} surface={surface} />
    </section>
  );
}

/** What is set of a wall alone. */
function WallRows({ wall }: { wall: GroundPlan['walls'][number] }) {
  const run = useScene((state) => state.run);
  const change = useScene((state) => state.change);
  const { id, name } = wall;
  return (
    <>
      <GoesOn wall={wall} />
      <Within
        label="Matte at which the wall ends"
        value={wall.until}
        onChange={(until) => run(setSurface(`${name}: where it ends`, 'walls', id, { until }))}
      />
      <NumberRow
        label="Day’s shade"
        value={wall.dayShade ?? 0}
        range={RANGES.dayShade}
        initial={0}
        onChange={(stops) =>
          change(
            `surface ${id} dayShade`,
            setSurface(`${name}: day’s shade`, 'walls', id, { dayShade: stops || undefined }),
          )
        }
      />
    </>
  );
}

/** Lets a wall go on beyond its ends, as far as the picture does. */
function GoesOn({ wall: { id, name, foot } }: { wall: GroundPlan['walls'][number] }) {
  const plan = useScene(({ scene }) => scene.plan);
  const run = useScene((state) => state.run);
  const side = (to: 'left' | 'right') => (
    <Button
      size="compact-xs"
      variant="default"
      onClick={() =>
        run(setSurface(`${name} goes on to the ${to}`, 'walls', id, { foot: footGoneOn({ plan }, foot, to) }))
      }
    >
      {`To the ${to}`}
    </Button>
  );
  return (
    <div className={classes.pair}>
      <span>Let it go on</span>
      <div className={classes.actions}>
        {side('left')}
        {side('right')}
      </div>
    </div>
  );
}

function RemoveIt({ kind, surface: { id, name } }: SettingsProps) {
  const run = useScene((state) => state.run);
  const setView = useView((view) => view.set);
  return (
    <div className={classes.actions}>
      <Button
        size="compact-xs"
        variant="default"
        onClick={() => {
          run(removeSurface(`Remove ${name}`, kind, id));
          setView({ surface: undefined });
        }}
      >
        Remove
      </Button>
    </div>
  );
}

/** What is set of the ground itself. */
export function GroundSettings() {
  const run = useScene((state) => state.run);
  const change = useScene((state) => state.change);
  const ground = useScene(({ scene }) => scene.plan.ground);
  return (
    <section className={own.settings} aria-label="Ground">
      <FinishRows
        finish={ground}
        crease={0}
        onSet={(key, label, value) =>
          change(`ground ${key}`, setGround(`Ground: ${label.toLowerCase()}`, { [key]: value }))
        }
        onTake={(label, finish) => run(setGround(`Ground: ${label}`, finish))}
      />
      <Within
        label="Matte within which the ground shines"
        value={ground.wet}
        onChange={(wet) => run(setGround('Ground: where it shines', { wet }))}
      />
      <MirrorsRow />
      <p className={classes.hint}>
        What shines, here or elsewhere, mirrors what stands around it and the sky.
      </p>
    </section>
  );
}

interface WithinProps {
  label: string;
  /** A matte's id; undefined for all of it. */
  value: string | undefined;
  onChange: (matte: string | undefined) => void;
}

/** The matte within which something holds. */
const Within = (props: WithinProps) => <MatteSelect caption="Only within" none="all of it" {...props} />;
