import { RANGES } from './ranges';

/** Whether a fader lets any light through: at the lowest stop it is off. */
export const isUp = (stops: number): boolean => stops > RANGES.level.min;

/** Light of a fader in stops. */
export const faderGain = (stops: number): number => (isUp(stops) ? 2 ** stops : 0);
