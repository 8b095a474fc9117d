'use client';

import { Button, SegmentedControl } from '@mantine/core';
import { litShare } from '@/core/sky/moon-disc';
import { FIRST_SKY } from '@/core/sky/sky-schema';
import { RANGES } from '@/core/fields/ranges';
import { setSky } from '@/core/scene/sky-commands';
import { useScene, useView } from '../../editor/editor-context';
import { CloudsPart, TwilightPart } from './sky-parts';
import { MoonPart } from './moon-part';
import { PicturePart } from './picture-part';
import { StormPart } from './storm-part';
import { StarsPart } from './stars-part';
import { SKY_PARTS, type SkyPartName } from './sky-view';
import { PartFolds, type StepPart } from '../../worksheet/part-folds';
import classes from '../../worksheet/worksheet.module.css';

const PARTS: Record<SkyPartName, StepPart> = {
  twilight: {
    title: 'Twilight',
    says: ({ sky }) => `sun went ${Math.abs(sky.sun)}° ${sky.sun < 0 ? 'left' : 'right'}`,
    Body: TwilightPart,
  },
  clouds: {
    title: 'Clouds',
    says: ({ sky }) => (sky.clouds.cover === 0 ? 'none made' : `${Math.round(100 * sky.clouds.cover)} %`),
    Body: CloudsPart,
  },
  picture: {
    title: 'Picture',
    says: ({ sky }) => sky.picture?.name ?? 'none',
    Body: PicturePart,
  },
  stars: {
    title: 'Stars',
    says: ({ sky, desk }) =>
      desk.stars <= RANGES.level.min ? 'off' : sky.stars.from === 'true' ? 'the true sky' : 'scattered',
    Body: StarsPart,
  },
  moon: {
    title: 'Moon',
    says: ({ sky, desk, moon }) =>
      desk.moon <= RANGES.level.min
        ? 'down'
        : `${moon.elevation.toFixed(0)}° high, ${Math.round(100 * litShare(sky.moon.phase))} % lit`,
    Body: MoonPart,
  },
  storm: {
    title: 'Storm',
    says: ({ fixtures }) => {
      const bolts = fixtures.filter(({ kind }) => kind === 'bolt').length;
      return bolts === 0 ? 'no bolt' : bolts === 1 ? 'one bolt' : `${bolts} bolts`;
    },
    Body: StormPart,
  },
};

/** Parts that any sky can have: the moon lights the land, bolts are fixtures. */
const OVER_ANY: readonly SkyPartName[] = ['moon', 'storm'];

/** The sky: what stands behind the skyline. */
export function SkyStep() {
  const from = useScene(({ scene }) => scene.sky.from);
  const run = useScene((state) => state.run);
  const open = useView((view) => view.skyPart);
  const setView = useView((view) => view.set);
  return (
    <>
      <SegmentedControl
        aria-label="What stands behind the skyline"
        fullWidth
        size="xs"
        value={from}
        onChange={(value) => run(setSky('Sky', { from: value }))}
        data={[
          { value: 'hour', label: 'The hour’s sky' },
          { value: 'plate', label: 'The plate’s own' },
        ]}
      />
      <PartFolds
        names={SKY_PARTS.filter((name) => from === 'hour' || OVER_ANY.includes(name))}
        parts={PARTS}
        open={open}
        onOpen={(skyPart) => setView({ skyPart })}
      />
      <p className={classes.hint}>
        {from === 'hour'
          ? 'The hour above sets how bright it is. Where sky is taken for land, say so with the brush in Ground plan.'
          : 'The day’s sky is darkened together with the land. Take the hour’s sky for twilight, stars, clouds and a moon.'}
      </p>
      {from === 'hour' && (
        <div className={classes.actions}>
          <Button
            size="compact-xs"
            variant="default"
            onClick={() => run(setSky('Reset the sky', structuredClone(FIRST_SKY)))}
          >
            Start over
          </Button>
        </div>
      )}
    </>
  );
}
