import type { Night } from '../scene/schema';
import { hourValues } from './hour';

/** An hour at which a lamp sits about right. */
export const FIRST_HOUR = 0.58;

/** The night that a scene starts from at an hour; what the hour says nothing about is the same at every one. */
export function startingNight(hour: number): Night {
  return { hour, ...hourValues(hour), tint: 0, hold: 0.35, haze: 0.1 };
}
