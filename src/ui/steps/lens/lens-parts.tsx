'use client';

import { SegmentedControl } from '@mantine/core';
import { FIRST_LENS } from '@/core/lens/lens-schema';
import { setGrain, setLens } from '@/core/scene/lens-commands';
import { RANGES, type Range } from '@/core/fields/ranges';
import type { LensSettings } from '@/core/scene/schema';
import { NumberRow, ratioScale } from '../../controls/number-row';
import { useScene } from '../../editor/editor-context';
import { GelSwatches } from '../fixtures/gel-swatches';
import classes from '../../worksheet/worksheet.module.css';

type Look = Partial<Parameters<typeof NumberRow>[0]>;
type NumberIn<T> = { [K in keyof T]: T[K] extends number ? K : never }[keyof T] & string;

/** Rows for numbers of the lens. */
function useLensRow() {
  const lens = useScene(({ scene }) => scene.lens);
  const change = useScene((state) => state.change);
  return (name: NumberIn<LensSettings>, label: string, range: Range, look?: Look) => (
    <NumberRow
      label={label}
      value={lens[name]}
      range={range}
      initial={FIRST_LENS[name]}
      onChange={(value) => change(`lens ${name}`, setLens(`Lens: ${label.toLowerCase()}`, { [name]: value }))}
      {...look}
    />
  );
}

/** What spikes look like: as an aperture draws them, or each value by hand. Their fader is on the desk. */
export function SpikesPart() {
  const { from, gel, tint } = useScene(({ scene }) => scene.lens);
  const run = useScene((state) => state.run);
  const row = useLensRow();
  return (
    <>
      <SegmentedControl
        aria-label="What draws the spikes"
        fullWidth
        size="xs"
        value={from}
        onChange={(value) => run(setLens('What draws the spikes', { from: value }))}
        data={[
          { value: 'aperture', label: 'An aperture' },
          { value: 'hand', label: 'By hand' },
        ]}
      />
      {from === 'aperture' ? (
        <>
          {row('blades', 'Blades', RANGES.blades)}
          {row('roundness', 'Roundness', RANGES.strength)}
        </>
      ) : (
        <>
          {row('number', 'Number', RANGES.spikes)}
          {row('reach', 'Reach', RANGES.spikeReach, { scale: ratioScale(RANGES.spikeReach) })}
          {row('thickness', 'Thickness', RANGES.spikeThickness, { scale: ratioScale(RANGES.spikeThickness) })}
          {row('crisp', 'Crispness', RANGES.strength)}
        </>
      )}
      {row('turn', 'Turn', RANGES.tilt)}
      {row('heart', 'Heart', RANGES.halo)}
      {row('tint', 'One colour', RANGES.strength)}
      {tint > 0 && (
        <GelSwatches gel={gel} onChange={(next) => run(setLens('Colour of the spikes', { gel: next }))} />
      )}
      <p className={classes.hint}>
        {from === 'aperture'
          ? 'An even number of blades draws as many spikes, an odd number twice as many. Rounder blades draw shorter, softer ones.'
          : 'Each spike has its source’s own colour, unless one colour takes its place.'}
      </p>
    </>
  );
}

/** How far the veil reaches; its fader is on the desk. */
export function VeilPart() {
  const row = useLensRow();
  return (
    <>
      {row('veilReach', 'Reach', RANGES.veilReach, { scale: ratioScale(RANGES.veilReach) })}
      <p className={classes.hint}>
        Some of all light is spread about, as in an eye or in glass: around lamps it glows, and shadows near
        them lift. The Veil fader on the desk says how much.
      </p>
    </>
  );
}

/** The grain of a night exposure. */
export function GrainPart() {
  const grain = useScene(({ scene }) => scene.lens.grain);
  const change = useScene((state) => state.change);
  const row = (name: keyof typeof grain, label: string, range: Range) => (
    <NumberRow
      label={label}
      value={grain[name]}
      range={range}
      initial={FIRST_LENS.grain[name]}
      onChange={(value) =>
        change(`lens grain ${name}`, setGrain(`Grain: ${label.toLowerCase()}`, { [name]: value }))
      }
    />
  );
  return (
    <>
      {row('iso', 'Sensitivity', RANGES.iso)}
      {row('size', 'Size', RANGES.grainSize)}
      {row('color', 'Colour', RANGES.strength)}
      {row('seed', 'Seed', RANGES.seed)}
      <p className={classes.hint}>
        As a sensor would have it at this sensitivity, the same look at every size of the output. At 0 there
        is none.
      </p>
    </>
  );
}
