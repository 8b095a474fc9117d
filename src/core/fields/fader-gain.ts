import { RANGES } from './ranges';

/** Light of a fader in stops. At the lowest stop it is off. */
export const faderGain = (stops: number): number => (stops <= RANGES.level.min ? 0 : 2 ** stops);
