'use client';

import { Button } from '@mantine/core';
import { startingNight } from '@/core/night/starting-night';
import { setNight } from '@/core/scene/commands';
import { NIGHT_PARTS, type NightPartName } from './night-view';
import { useScene, useView } from '../../editor/editor-context';
import { ByTonePart } from './by-tone-part';
import { HazePart, LightPart, SurroundPart, TonesPart } from './night-parts';
import { LutPart } from './lut-part';
import { NocturneWall } from './nocturne-wall';
import { ToneChart } from './tone-chart';
import { PartFolds, type StepPart } from '../../worksheet/part-folds';
import classes from '../../worksheet/worksheet.module.css';

const PARTS: Record<NightPartName, StepPart> = {
  light: {
    title: 'Light',
    says: ({ night: { exposure, kelvin } }) =>
      `${exposure.toFixed(1).replace('-', '−')} stops, ${Math.round(kelvin)} K`,
    Body: LightPart,
  },
  tones: {
    title: 'Tones',
    says: ({ night: { shape } }) =>
      JSON.stringify({ ...shape, on: '' }) === JSON.stringify({ ...startingNight(0).shape, on: '' })
        ? 'as they fall'
        : `shaped on ${shape.on}`,
    Body: TonesPart,
  },
  byTone: {
    title: 'Colour by tone',
    says: ({ night: { byTone } }) =>
      byTone.strength === 0 ? 'off' : `${Math.round(100 * byTone.strength)} %`,
    Body: ByTonePart,
  },
  lut: {
    title: 'Look-up table',
    says: ({ night: { lut } }) => lut?.name ?? 'none',
    Body: LutPart,
  },
  surround: {
    title: 'Surroundings',
    says: ({ night: { surround } }) =>
      surround.stops === 0 ? 'open' : `−${surround.stops.toFixed(1)} stops`,
    Body: SurroundPart,
  },
  haze: {
    title: 'Haze',
    says: ({ night: { haze } }) => haze.toFixed(2),
    Body: HazePart,
  },
};

/** The night: how dark, how cool, how muted the day becomes, and how its tones are shaped. */
export function NightStep() {
  const hour = useScene(({ scene }) => scene.night.hour);
  const run = useScene((state) => state.run);
  const open = useView((view) => view.nightPart);
  const setView = useView((view) => view.set);
  return (
    <>
      <ToneChart />
      <NocturneWall />
      <PartFolds
        names={NIGHT_PARTS}
        parts={PARTS}
        open={open}
        onOpen={(nightPart) => setView({ nightPart })}
      />
      <p className={classes.hint}>
        The hour above sets where these start; what you add here goes along when it moves.
      </p>
      <div className={classes.actions}>
        <Button
          size="compact-xs"
          variant="default"
          onClick={() => run(setNight('Reset the night', startingNight(hour)))}
        >
          As the hour says
        </Button>
      </div>
    </>
  );
}
