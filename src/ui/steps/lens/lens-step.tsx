'use client';

import { Button } from '@mantine/core';
import { spikesOf } from '@/core/lens/spikes';
import { resetLens } from '@/core/scene/lens-commands';
import { isUp } from '@/core/fields/fader-gain';
import { useScene, useView } from '../../editor/editor-context';
import { PartFolds, type StepPart } from '../../worksheet/part-folds';
import { GrainPart, SpikesPart, VeilPart } from './lens-parts';
import { SourcesPart } from './sources-part';
import { LENS_PARTS, type LensPartName } from './lens-view';
import classes from '../../worksheet/worksheet.module.css';

const PARTS: Record<LensPartName, StepPart> = {
  spikes: {
    title: 'Spikes',
    says: ({ lens, desk }) => (isUp(desk.spikes) ? `${spikesOf(lens).number} each` : 'off'),
    Body: SpikesPart,
  },
  sources: {
    title: 'Sources',
    says: ({ lens }) => (lens.points.length === 0 ? 'as found' : `${lens.points.length} by hand`),
    Body: SourcesPart,
  },
  veil: {
    title: 'Veil',
    says: ({ desk }) => (isUp(desk.veil) ? 'on its fader' : 'off'),
    Body: VeilPart,
  },
  grain: {
    title: 'Grain',
    says: ({ lens }) => (lens.grain.iso === 0 ? 'none' : `ISO ${lens.grain.iso}`),
    Body: GrainPart,
  },
};

/** What the lens adds to the picture. */
export function LensStep() {
  const run = useScene((state) => state.run);
  const open = useView((view) => view.lensPart);
  const setView = useView((view) => view.set);
  return (
    <>
      <PartFolds names={LENS_PARTS} parts={PARTS} open={open} onOpen={(lensPart) => setView({ lensPart })} />
      <p className={classes.hint}>The faders Spikes and Veil on the desk say how strong both are.</p>
      <div className={classes.actions}>
        <Button size="compact-xs" variant="default" onClick={() => run(resetLens())}>
          Start over
        </Button>
      </div>
    </>
  );
}
