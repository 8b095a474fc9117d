'use client';

import { SegmentedControl, TextInput } from '@mantine/core';
import { useState } from 'react';
import { FIRST_SKY } from '@/core/sky/sky-schema';
import { setSkyPart, setStarFall } from '@/core/scene/sky-commands';
import { RANGES } from '@/core/fields/ranges';
import { NumberRow } from '../../controls/number-row';
import { useScene } from '../../editor/editor-context';
import { useSkyRow } from './sky-rows';
import { StarColors } from './star-colors';
import classes from '../../worksheet/worksheet.module.css';

/** Which stars, how many, in which colours, and where they end. Their fader is on the desk. */
export function StarsPart() {
  const from = useScene(({ scene }) => scene.sky.stars.from);
  const fall = useScene(({ scene }) => scene.sky.stars.fall);
  const run = useScene((state) => state.run);
  const change = useScene((state) => state.change);
  const row = useSkyRow('stars');
  return (
    <>
      <SegmentedControl
        aria-label="Which stars"
        fullWidth
        size="xs"
        value={from}
        onChange={(value) => run(setSkyPart('Stars', 'stars', { from: value }))}
        data={[
          { value: 'seed', label: 'Scattered' },
          { value: 'true', label: 'The true sky' },
        ]}
      />
      {from === 'seed' ? row('seed', 'Seed', RANGES.seed) : <WhenRows />}
      {row('faintest', 'Down to', RANGES.magnitude)}
      {row('size', 'Size', RANGES.starSize)}
      {row('trail', 'Trails', RANGES.trail)}
      <StarColors />
      <NumberRow
        label="End, tilt"
        value={fall.turn}
        range={RANGES.tilt}
        initial={FIRST_SKY.stars.fall.turn}
        onChange={(turn) => change('sky fall turn', setStarFall({ turn }))}
      />
      <NumberRow
        label="End, softness"
        value={fall.soft}
        range={RANGES.strength}
        initial={FIRST_SKY.stars.fall.soft}
        onChange={(soft) => change('sky fall soft', setStarFall({ soft }))}
      />
      <p className={classes.hint}>
        Drag the line in the picture under which stars end, or tilt it by its end.
      </p>
    </>
  );
}

/** The date, the hour, the place and the direction of the true sky. */
export function WhenRows() {
  const row = useSkyRow('when');
  return (
    <>
      <MomentField />
      {row('latitude', 'North', RANGES.latitude)}
      {row('longitude', 'East', RANGES.longitude)}
      {row('bearing', 'Eye looks to', RANGES.compass)}
    </>
  );
}

/** A moment in universal time, typed or picked. What is none is said, and changes nothing. */
function MomentField() {
  const moment = useScene(({ scene }) => scene.sky.when.moment);
  const run = useScene((state) => state.run);
  const [typed, setTyped] = useState<string>();
  const value = typed ?? moment.slice(0, 16);
  const isMoment = /^\d{4}-\d\d-\d\dT\d\d:\d\d$/.test(value) && !Number.isNaN(Date.parse(`${value}Z`));
  const take = () => {
    if (typed !== undefined && isMoment)
      run(setSkyPart('The moment of the sky', 'when', { moment: `${typed}Z` }));
    if (isMoment) setTyped(undefined);
  };
  return (
    <TextInput
      type="datetime-local"
      size="xs"
      label="Date and time, UTC"
      value={value}
      error={isMoment ? undefined : 'A date and a time, please.'}
      onChange={(event) => setTyped(event.currentTarget.value)}
      onBlur={take}
      onKeyDown={(event) => {
        if (event.key === 'Enter') take();
      }}
    />
  );
}
