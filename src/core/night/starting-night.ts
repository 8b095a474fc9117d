import type { Night } from './night-schema';
import { hourValues } from './hour';

/** An hour at which a lamp sits about right. */
export const FIRST_HOUR = 0.58;

/** Everything that shapes a night beyond its light, at rest. */
export const PLAIN_GRADE = {
  evenOut: 0,
  hazeKelvin: 6500,
  hazeGlow: 0,
  shape: {
    on: 'luminance',
    black: 0,
    white: 1,
    middle: 0,
    ceiling: 1,
    points: [
      { x: 0, y: 0 },
      { x: 1, y: 1 },
    ],
  },
  byTone: {
    strength: 0,
    stops: [
      { at: 0, color: [0.01, 0.012, 0.03] },
      { at: 0.34, color: [0.06, 0.1, 0.24] },
      { at: 0.72, color: [0.46, 0.58, 0.78] },
      { at: 1, color: [0.86, 0.92, 1] },
    ],
  },
  refit: { always: false, low: 0, high: 1 },
  lut: null,
  surround: { stops: 0, at: { u: 0.5, v: 0.6 }, across: 0.5, down: 0.45, soft: 0.8, lamps: 0 },
} satisfies Partial<Night>;

/** The night that a scene starts from at an hour; what the hour says nothing about is the same at every one. */
export function startingNight(hour: number): Night {
  return {
    hour,
    ...hourValues(hour),
    meter: 1,
    tint: 0,
    haze: 0.1,
    ...structuredClone(PLAIN_GRADE),
    hold: 0.55,
    evenOut: 0.4,
  };
}
