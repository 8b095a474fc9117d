'use client';

import { Button } from '@mantine/core';
import { startingNight } from '@/core/night/starting-night';
import { setNight } from '@/core/scene/commands';
import { RANGES } from '@/core/scene/ranges';
import { useScene } from '../editor/editor-context';
import { NumberRow, ratioScale } from '../controls/number-row';
import { NocturneWall } from './nocturne-wall';
import { ToneChart } from './tone-chart';
import classes from './worksheet.module.css';

const COOL = 'linear-gradient(90deg, #ff9c4e, #fff3e2 52%, #9fbcff)';
const TINT = 'linear-gradient(90deg, #6fa873, #8a8a8a, #b06fae)';

/** The night: how dark, how cool, how muted the day becomes. Starting values come from the hour. */
export function NightStep() {
  const night = useScene(({ scene }) => scene.night);
  const change = useScene((state) => state.change);
  const run = useScene((state) => state.run);
  const start = startingNight(night.hour);
  type Name = Exclude<keyof typeof start, 'hour'>;
  const row = (name: Name, label: string, more?: Partial<Parameters<typeof NumberRow>[0]>) => (
    <NumberRow
      label={label}
      value={night[name]}
      range={RANGES[name]}
      initial={start[name]}
      onChange={(value) => change(`night ${name}`, setNight(label, { [name]: value }))}
      {...more}
    />
  );
  return (
    <>
      <ToneChart />
      <NocturneWall />
      {row('exposure', 'Exposure')}
      {row('kelvin', 'Kelvin', { scale: ratioScale(RANGES.kelvin), track: COOL })}
      {row('tint', 'Tint', { track: TINT })}
      {row('saturation', 'Saturation')}
      {row('rods', 'Rod vision')}
      {row('hold', 'Hold bright')}
      {row('haze', 'Haze')}
      <p className={classes.hint}>
        The hour above sets where these start; what you add here goes along when it moves.
      </p>
      <div className={classes.actions}>
        <Button size="compact-xs" variant="default" onClick={() => run(setNight('Reset the night', start))}>
          As the hour says
        </Button>
      </div>
    </>
  );
}
