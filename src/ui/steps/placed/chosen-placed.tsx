'use client';

import { Button, Switch } from '@mantine/core';
import { FIRST_PLACED, MOST_PLACED } from '@/core/placed/placed-schema';
import { RANGES, type Range } from '@/core/fields/ranges';
import { MOST_FIXTURES } from '@/core/scene/schema';
import { copyPlaced, removePlaced, setPlaced } from '@/core/scene/placed-commands';
import type { Placed } from '@/core/scene/schema';
import { copyOfPlaced } from '@/state/actions/placed-actions';
import { MatteSelect } from '../../controls/matte-select';
import { NameField } from '../../controls/name-field';
import { NumberRow, ratioScale } from '../../controls/number-row';
import { useScene, useView } from '../../editor/editor-context';
import { PartFolds, type StepPart } from '../../worksheet/part-folds';
import { CutDialog } from './cut-dialog';
import { PLACED_PARTS, type PlacedPartName } from './placed-view';
import lists from '../../worksheet/lists.module.css';
import classes from '../../worksheet/worksheet.module.css';

/** What is set of the chosen placed picture. */
export function ChosenPlaced({ placed }: { placed: Placed }) {
  const run = useScene((state) => state.run);
  const open = useView((view) => view.placedPart);
  const cutting = useView((view) => view.cutting);
  const setView = useView((view) => view.set);
  const { id, name } = placed;
  return (
    <section className={lists.settings} aria-label={name}>
      <div className={classes.pair}>
        <span>Name</span>
        <NameField
          label="Placed picture’s name"
          value={name}
          onCommit={(next) => run(setPlaced('Name', id, { name: next }))}
        />
      </div>
      <div className={classes.actions}>
        <Button size="compact-xs" variant="default" onClick={() => setView({ cutting: true })}>
          Cut out
        </Button>
        <CopyIt placed={placed} />
        <Button
          size="compact-xs"
          variant="default"
          onClick={() => {
            run(removePlaced(id));
            setView({ placed: undefined });
          }}
        >
          Remove
        </Button>
      </div>
      <PartFolds
        names={PLACED_PARTS}
        parts={PARTS}
        open={open}
        onOpen={(placedPart) => setView({ placedPart })}
      />
      {cutting && <CutDialog placed={placed} onClose={() => setView({ cutting: false })} />}
    </section>
  );
}

function CopyIt({ placed }: { placed: Placed }) {
  const scene = useScene((state) => state.scene);
  const run = useScene((state) => state.run);
  const setView = useView((view) => view.set);
  const lamps = scene.fixtures.filter(({ on }) => on === placed.id).length;
  const isFull = scene.placed.length >= MOST_PLACED || scene.fixtures.length + lamps > MOST_FIXTURES;
  return (
    <Button
      size="compact-xs"
      variant="default"
      disabled={isFull}
      onClick={() => {
        const { copy, lamps: named } = copyOfPlaced(scene, placed);
        run(copyPlaced(placed.id, copy, named));
        setView({ placed: copy.id });
      }}
    >
      Copy
    </Button>
  );
}

type Numbered = Exclude<keyof typeof FIRST_PLACED, 'hangs' | 'flip'> | 'tall';

/** How tall a picture is put back to, metres. */
const USUAL_TALL = 1.8;

/** The chosen picture, and what sets a value of it. */
function useChosen() {
  const id = useView((view) => view.placed);
  const placed = useScene(({ scene }) => scene.placed.find((one) => one.id === id));
  const change = useScene((state) => state.change);
  const run = useScene((state) => state.run);
  const row = (key: Numbered, label: string, range: Range, isRatio = false) =>
    placed && (
      <NumberRow
        label={label}
        value={placed[key]}
        range={range}
        initial={key === 'tall' ? USUAL_TALL : FIRST_PLACED[key]}
        scale={isRatio ? ratioScale(range) : undefined}
        onChange={(value) =>
          change(
            `placed ${placed.id} ${key}`,
            setPlaced(`${placed.name}: ${label.toLowerCase()}`, placed.id, { [key]: value }),
          )
        }
      />
    );
  const toggle = (key: 'hangs' | 'flip', label: string) =>
    placed && (
      <Switch
        size="xs"
        label={label}
        checked={placed[key]}
        onChange={({ currentTarget: { checked } }) =>
          run(setPlaced(`${placed.name}: ${label.toLowerCase()}`, placed.id, { [key]: checked }))
        }
      />
    );
  return { placed, row, toggle };
}

function StandPart() {
  const { placed, row, toggle } = useChosen();
  return (
    <>
      {row('tall', 'Height', RANGES.placedTall, true)}
      {row('turn', 'Turn', RANGES.placedTurn)}
      {row('lean', 'Lean', RANGES.placedLean)}
      {row('contact', 'At its foot', RANGES.strength)}
      <div className={classes.actions}>
        {toggle('hangs', 'Hangs on the wall')}
        {toggle('flip', 'Flip')}
      </div>
      {placed && <Behind placed={placed} />}
      <p className={classes.hint}>To light a lamp in it, click its glass in Fixtures: it goes along.</p>
    </>
  );
}

function MatchPart() {
  const { row } = useChosen();
  return (
    <>
      {row('match', 'Match', RANGES.strength)}
      {row('exposure', 'Exposure', RANGES.place)}
      {row('black', 'Black', RANGES.placedBlack)}
      {row('warmth', 'Warmth', RANGES.warmth)}
      {row('soft', 'Blur', RANGES.placedSoft)}
      {row('grain', 'Grain', RANGES.iso)}
    </>
  );
}

function SurfacePart() {
  const { row } = useChosen();
  return (
    <>
      {row('roundness', 'Roundness', RANGES.strength)}
      {row('crease', 'Crease', RANGES.strength)}
      {row('sheen', 'Sheen', RANGES.strength)}
      {row('roughness', 'Roughness', RANGES.roughness)}
    </>
  );
}

/** The matte of what stands in front of it. */
function Behind({ placed: { id, name, behind } }: { placed: Placed }) {
  const hasMattes = useScene(({ scene }) => scene.mattes.length > 0);
  const run = useScene((state) => state.run);
  if (!hasMattes) return null;
  return (
    <MatteSelect
      caption="Behind"
      label="Matte of what stands in front of it"
      none="nothing"
      value={behind}
      onChange={(next) => run(setPlaced(`${name}: what is in front`, id, { behind: next }))}
    />
  );
}

const PARTS: Record<PlacedPartName, StepPart> = {
  stand: { title: 'Stand', says: () => '', Body: StandPart },
  match: { title: 'Match to the photo', says: () => '', Body: MatchPart },
  surface: { title: 'Surface', says: () => '', Body: SurfacePart },
};
