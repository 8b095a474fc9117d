import { srgb } from '../color/srgb';

/** Entries of the table; display light d sits at sqrt(d) * (size - 1), which spends them where the eye does. */
export const DISPLAY_CODE_STEPS = 8192;

/** A table from the square root of display light to sRGB codes of `levels` steps (255 or 65535). */
export function createDisplayCodes(levels: number): Uint16Array {
  return Uint16Array.from({ length: DISPLAY_CODE_STEPS }, (_, i) => {
    const root = i / (DISPLAY_CODE_STEPS - 1);
    return Math.round(srgb.encode(root * root) * levels);
  });
}
