import { isUp } from '../fields/fader-gain';
import { FIRST_LENS, MOST_LENS_POINTS, type LensPoint } from '../lens/lens-schema';
import type { Command } from './command';
import type { LensSettings } from './schema';

/** Sets values of the lens. */
export const setLens = (label: string, values: Partial<LensSettings>): Command => ({
  label,
  apply: ({ lens }) => {
    Object.assign(lens, values);
  },
});

/** Sets values of the grain. */
export const setGrain = (label: string, values: Partial<LensSettings['grain']>): Command => ({
  label,
  apply: ({ lens }) => {
    Object.assign(lens.grain, values);
  },
});

/** Puts the lens back to what it began with, but for what was said of places. */
export const resetLens = (): Command => ({
  label: 'Reset the lens',
  apply: (scene) => {
    scene.lens = { ...structuredClone(FIRST_LENS), points: scene.lens.points };
  },
});

/** Says something of places: each takes the place of what was said of it before. */
export const sayOfGlints = (label: string, points: readonly LensPoint[]): Command => ({
  label,
  apply: ({ lens }) => {
    const ids = new Set(points.map(({ id }) => id));
    const others = lens.points.filter(({ id }) => !ids.has(id));
    lens.points = [...others, ...points].slice(-MOST_LENS_POINTS);
  },
});

/** Lets go of what was said of some places. */
export const unsayOfGlints = (label: string, ids: readonly string[]): Command => ({
  label,
  apply: ({ lens }) => {
    lens.points = lens.points.filter(({ id }) => !ids.includes(id));
  },
});

/** Brings back what was found and taken away. */
export const bringGlintsBack = (): Command => ({
  label: 'Bring back what was found',
  apply: ({ lens }) => {
    lens.points = lens.points.filter(({ stops }) => isUp(stops));
  },
});
