import { RANGES } from '../fields/ranges';
import type { Nocturne } from '../night/nocturnes';
import { nocturneSky } from '../sky/nocturne-skies';
import { trueMoon } from '../sky/true-moon';
import type { Command } from './command';
import type { SkyPicture } from '../sky/sky-schema';
import type { Moon, SkySettings } from './schema';

/** Sets values of the sky. */
export const setSky = (label: string, values: Partial<SkySettings>): Command => ({
  label,
  apply: ({ sky }) => {
    Object.assign(sky, values);
  },
});

/** Parts of the sky that hold values of their own. */
export type SkyPart = 'clouds' | 'stars' | 'moon' | 'when';

/** Sets values of one part of the sky. */
export const setSkyPart = <Part extends SkyPart>(
  label: string,
  part: Part,
  values: Partial<SkySettings[Part]>,
): Command => ({
  label,
  apply: ({ sky }) => {
    Object.assign(sky[part], values);
  },
});

/** Sets values of the picture of a sky. */
export const setSkyPicture = (label: string, values: Partial<SkyPicture>): Command => ({
  label,
  apply: ({ sky }) => {
    if (sky.picture) Object.assign(sky.picture, values);
  },
});

/** Sets where stars end. */
export const setStarFall = (values: Partial<SkySettings['stars']['fall']>): Command => ({
  label: 'Where stars end',
  apply: ({ sky }) => {
    Object.assign(sky.stars.fall, values);
  },
});

/** Takes a ready-made night, and the sky that goes with it where the hour's sky stands behind the skyline. */
export const takeNocturne = ({ id, name, night }: Nocturne): Command => ({
  label: `Nocturne: ${name}`,
  apply: (scene) => {
    Object.assign(scene.night, night);
    const { sky, desk } = scene;
    if (sky.from !== 'hour') return;
    const { afterglow, clouds, moon } = nocturneSky(id);
    sky.afterglow = afterglow;
    Object.assign(sky.clouds, clouds);
    if (moon) desk.moon = Math.max(0, desk.moon);
    else desk.moon = RANGES.level.min;
  },
});

/** Puts the moon at a place of the sky, and brings it up if it is down. */
export const raiseMoon = (place: Pick<Moon, 'azimuth' | 'elevation'>): Command => ({
  label: 'Place the moon',
  apply: ({ moon, desk, sky }) => {
    Object.assign(moon, place);
    sky.from = 'hour';
    if (desk.moon <= RANGES.level.min) desk.moon = 0;
  },
});

/** Puts the moon where it truly stands, with its phase; below the horizon it is down. */
export const placeTrueMoon = (): Command => ({
  label: 'The true moon',
  apply: ({ moon, desk, sky }) => {
    const { azimuth, elevation, phase, tilt } = trueMoon(sky.when);
    Object.assign(sky.moon, { phase, tilt });
    if (elevation < RANGES.elevation.min) {
      desk.moon = RANGES.level.min;
      return;
    }
    Object.assign(moon, { azimuth, elevation });
    if (desk.moon <= RANGES.level.min) desk.moon = 0;
  },
});
