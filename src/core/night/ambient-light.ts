import type { Rgb } from '../color/rgb';
import type { Night } from './night-schema';
import { ambientGains } from './ambient-gains';
import { fadedGrey } from './scotopic';

/** What the ambient light of a night makes of the plate, as numbers that a loop over pixels needs. */
export interface AmbientLight {
  gains: Rgb;
  saturation: number;
  /** Weights of the grey toward which colours fade. */
  grey: Rgb;
  /** How far the plate's highlights are held down, 0 to 1. */
  hold: number;
}

export function ambientLight({ exposure, kelvin, tint, saturation, rods, hold }: Night): AmbientLight {
  return { gains: ambientGains(exposure, kelvin, tint), saturation, grey: fadedGrey(rods), hold };
}
