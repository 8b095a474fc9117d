import type { Rgb } from '../color/rgb';
import { blackbodyRgb } from '../color/planckian';

/** Temperature of a star by its colour index B-V, kelvin (Ballesteros 2012). */
export const starKelvin = (bv: number): number => 4600 * (1 / (0.92 * bv + 1.7) + 1 / (0.92 * bv + 0.62));

/** The classes by which colours come out, the hottest first: their names, and the colour index up to which a star belongs to each. */
export const STAR_CLASSES = [
  { name: 'blue', until: 0 },
  { name: 'blue-white', until: 0.3 },
  { name: 'white', until: 0.58 },
  { name: 'yellow', until: 0.82 },
  { name: 'orange', until: 1.4 },
  { name: 'red', until: Infinity },
] as const;

/** The class of a colour index. */
export const starClass = (bv: number): number => STAR_CLASSES.findIndex(({ until }) => bv < until);

/** White of the eye at night: stars of this temperature look white, kelvin. */
export const STAR_WHITE = 6800;

const COOLEST = 2;
const HOTTEST = -0.4;
const ENTRIES = 49;

/** Colours of stars of luminance 1 by their colour index, from a table that is made once. */
export function createStarColors(): (bv: number) => Rgb {
  const table = Array.from({ length: ENTRIES }, (_, i) =>
    blackbodyRgb(starKelvin(HOTTEST + (i * (COOLEST - HOTTEST)) / (ENTRIES - 1)), STAR_WHITE),
  );
  return (bv) => {
    const at = Math.round(((bv - HOTTEST) / (COOLEST - HOTTEST)) * (ENTRIES - 1));
    return table[Math.min(ENTRIES - 1, Math.max(0, at))];
  };
}
