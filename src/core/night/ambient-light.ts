import type { Rgb } from '../color/rgb';
import type { Night } from './night-schema';
import { ambientGains } from './ambient-gains';
import { HOLD_MIDDLE } from './highlight-hold';
import { fadedGrey } from './scotopic';

/** What the ambient light of a night makes of the plate, as numbers that a loop over pixels needs. */
export interface AmbientLight {
  gains: Rgb;
  saturation: number;
  /** Weights of the grey toward which colours fade. */
  grey: Rgb;
  /** How far the plate's highlights are held down, 0 to 1. */
  hold: number;
  /** Luminance of the plate at which half of the hold has set in. */
  holdMiddle: number;
}

/** @param gain what the plate is multiplied by before the night's exposure, as it is metered */
export function ambientLight(
  { exposure, kelvin, tint, saturation, rods, hold }: Night,
  gain = 1,
): AmbientLight {
  const [r, g, b] = ambientGains(exposure, kelvin, tint);
  return {
    gains: [r * gain, g * gain, b * gain],
    ...{ saturation, grey: fadedGrey(rods), hold, holdMiddle: HOLD_MIDDLE / gain },
  };
}
