'use client';

import { Button, NativeSelect, SegmentedControl, UnstyledButton } from '@mantine/core';
import { bringGlintsBack, setLens } from '@/core/scene/lens-commands';
import { RANGES } from '@/core/fields/ranges';
import { giveGlints, strengthenGlints, takeGlints, type GlintMark } from '@/state/actions/lens-actions';
import { NumberRow } from '../../controls/number-row';
import { useScene, useView } from '../../editor/editor-context';
import { isChosen, useGlintMarks } from './use-glints';
import lists from '../../worksheet/lists.module.css';
import classes from '../../worksheet/worksheet.module.css';

const ORIGINS: Record<GlintMark['from'], string> = {
  fixture: 'fixture',
  found: 'in the photo',
  said: 'by hand',
};

/** Which lights get spikes. */
export function SourcesPart() {
  const run = useScene((state) => state.run);
  const { sweep, set: setView } = useView((view) => view);
  const marks = useGlintMarks();
  return (
    <>
      <SegmentedControl
        aria-label="What a stroke over sources does"
        fullWidth
        size="xs"
        value={sweep}
        onChange={(value) => setView({ sweep: value })}
        data={[
          { value: 'take', label: 'Stroke takes away' },
          { value: 'give', label: 'Stroke adds' },
        ]}
      />
      <p className={classes.hint}>
        Click in the picture to add a source, click a mark to take its spikes away. Drag a mark to part it in
        two. Choose several with Shift to set them together. Globes, lanterns, bulbs, headlamps and fires are
        here by themselves; panes and tubes are not.
      </p>
      {marks.length === 0 && (
        <p className={classes.hint}>No source yet. Light a lamp in Fixtures, or click in the picture.</p>
      )}
      <SourceList marks={marks} />
      <OnlyInside />
      <div className={classes.actions}>
        <Button
          size="compact-xs"
          variant="default"
          disabled={marks.every(({ isOn }) => isOn)}
          onClick={() => run(bringGlintsBack())}
        >
          Bring back what was found
        </Button>
      </div>
    </>
  );
}

/** The sources, each to be chosen. */
function SourceList({ marks }: { marks: readonly GlintMark[] }) {
  const { glint, glintsAlso, set: setView } = useView((view) => view);
  const chosen = marks.filter((mark) => isChosen(mark, { glint, glintsAlso }));

  /** A click chooses one; with Shift one more, or lets go of it. */
  function choose(mark: GlintMark, more: boolean): void {
    const isIn = chosen.includes(mark);
    const places = more ? chosen.filter((one) => one !== mark).map(({ at }) => at) : [];
    const [first, ...rest] = isIn && (more || chosen.length === 1) ? places : [...places, mark.at];
    setView({ glint: first, glintsAlso: rest });
  }
  return (
    <ul className={lists.list} aria-label="Sources">
      {marks.map((mark, k) => (
        <li key={k}>
          <UnstyledButton
            className={lists.item}
            aria-pressed={chosen.includes(mark)}
            onClick={(event) => choose(mark, event.shiftKey)}
          >
            Source {k + 1}
            <span>{mark.isOn ? ORIGINS[mark.from] : 'taken away'}</span>
          </UnstyledButton>
          {mark === chosen.at(-1) && <ChosenGlints marks={chosen} />}
        </li>
      ))}
    </ul>
  );
}

/** The matte inside which there are spikes, where there is any. */
function OnlyInside() {
  const within = useScene(({ scene }) => scene.lens.within);
  const mattes = useScene(({ scene }) => scene.mattes);
  const run = useScene((state) => state.run);
  if (mattes.length === 0) return null;
  const choices = mattes.map(({ id, name }) => ({ value: id, label: name }));
  return (
    <div className={classes.pair}>
      <span>Only inside</span>
      <NativeSelect
        size="xs"
        aria-label="The matte inside which there are spikes"
        value={within ?? ''}
        data={[{ value: '', label: 'everywhere' }, ...choices]}
        onChange={({ currentTarget: { value } }) =>
          run(setLens('Where there are spikes', { within: value === '' ? undefined : value }))
        }
      />
    </div>
  );
}

/** One source or several, set apart from the rest. */
function ChosenGlints({ marks }: { marks: readonly GlintMark[] }) {
  const run = useScene((state) => state.run);
  const change = useScene((state) => state.change);
  const on = marks.filter(({ isOn }) => isOn);
  const isOne = marks.length === 1;
  return (
    <div className={lists.settings}>
      {!isOne && (
        <p className={classes.hint} role="status">
          {`${marks.length} sources are chosen: what is set here is set of all of them.`}
        </p>
      )}
      {on.length > 0 && (
        <NumberRow
          label="Strength"
          value={on[0].point?.stops ?? 0}
          range={RANGES.level}
          initial={0}
          onChange={(stops) => change('lens strength', strengthenGlints(on, stops))}
        />
      )}
      <div className={classes.actions}>
        <Button
          size="compact-xs"
          variant="default"
          onClick={() => run(on.length > 0 ? takeGlints(on) : giveGlints(marks))}
        >
          {on.length > 0
            ? `Take ${isOne ? 'its' : 'their'} spikes away`
            : `Give ${isOne ? 'it' : 'them'} spikes again`}
        </Button>
      </div>
    </div>
  );
}
