'use client';

import { FIRST_SKY } from '@/core/sky/sky-schema';
import { setSky } from '@/core/scene/sky-commands';
import { RANGES, type Range } from '@/core/fields/ranges';
import { NumberRow, ratioScale } from '../../controls/number-row';
import { useScene } from '../../editor/editor-context';
import { useSkyRow, type Look } from './sky-rows';
import classes from '../../worksheet/worksheet.module.css';

/** The clear sky: where the sun went, what is left of its light, and what the town adds. */
export function TwilightPart() {
  const sky = useScene(({ scene }) => scene.sky);
  const change = useScene((state) => state.change);
  const row = (
    name: 'sun' | 'afterglow' | 'town' | 'townKelvin' | 'own',
    label: string,
    range: Range,
    look?: Look,
  ) => (
    <NumberRow
      label={label}
      value={sky[name]}
      range={range}
      initial={FIRST_SKY[name]}
      onChange={(value) => change(`sky ${name}`, setSky(label, { [name]: value }))}
      {...look}
    />
  );
  return (
    <>
      {row('sun', 'Sun went', RANGES.azimuth)}
      {row('afterglow', 'Afterglow', RANGES.skyStops)}
      {row('town', 'Town glow', RANGES.skyStops)}
      {row('townKelvin', 'Its colour', RANGES.kelvin, { scale: ratioScale(RANGES.kelvin) })}
      {row('own', 'Day’s clouds', RANGES.strength)}
      <p className={classes.hint}>Drag the mark on the horizon to where the sun went down.</p>
    </>
  );
}

/** Clouds made here. */
export function CloudsPart() {
  const row = useSkyRow('clouds');
  return (
    <>
      {row('cover', 'Cover', RANGES.strength)}
      {row('soft', 'Softness', RANGES.strength)}
      {row('size', 'Size', RANGES.cloudSize)}
      {row('height', 'Height', RANGES.cloudHeight, { scale: ratioScale(RANGES.cloudHeight) })}
      {row('drift', 'Drift', RANGES.driftKm)}
      {row('seed', 'Seed', RANGES.seed)}
      {row('under', 'From below', RANGES.skyStops)}
      <p className={classes.hint}>
        From below: how strongly clouds take the colour of the circuits that burn. It follows their faders.
      </p>
    </>
  );
}
