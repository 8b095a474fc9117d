import type { Rgb } from './rgb';

/** Oklab (Ottosson 2020) of a linear sRGB colour in [0, 1]: lightness in [0, 1], a toward red, b toward yellow. */
export function linearToOklab([r, g, b]: Rgb): [lightness: number, a: number, b: number] {
  const l = Math.cbrt(0.4122214708 * r + 0.5363325363 * g + 0.0514459929 * b);
  const m = Math.cbrt(0.2119034982 * r + 0.6806995451 * g + 0.1073969566 * b);
  const s = Math.cbrt(0.0883024619 * r + 0.2817188376 * g + 0.6299787005 * b);
  return [
    0.2104542553 * l + 0.793617785 * m - 0.0040720468 * s,
    1.9779984951 * l - 2.428592205 * m + 0.4505937099 * s,
    0.0259040371 * l + 0.7827717662 * m - 0.808675766 * s,
  ];
}
