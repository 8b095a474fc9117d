import { CAMERA_WHITE } from '../color/camera-white';
import { luminance } from '../color/luminance';
import { blackbodyRgb } from '../color/planckian';
import type { Rgb } from '../color/rgb';

/** How far a tint of 1 moves green against red and blue, stops. */
const TINT_STOPS = 0.5;

/**
 * Gains per channel that turn the plate into itself under ambient light: exposure in stops, colour in kelvin, tint from
 * -1 (green) to 1 (magenta). Kelvin and tint leave the luminance of a neutral surface alone.
 */
export function ambientGains(exposure: number, kelvin: number, tint: number): Rgb {
  const [r, g, b] = blackbodyRgb(kelvin, CAMERA_WHITE);
  const push = 2 ** (-TINT_STOPS * tint);
  const y = luminance([r, g * push, b]);
  const gain = 2 ** exposure / y;
  return [r * gain, g * push * gain, b * gain];
}
