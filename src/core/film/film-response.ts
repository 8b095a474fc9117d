import { LUMINANCE } from '../color/luminance';
import type { Rgb } from '../color/rgb';

/**
 * The film: how exposed scene light becomes display light. One definition for screen and output.
 *
 * toe      light under which shadows fall off faster than linear
 * inset    how far each channel is drawn toward luminance before the curve, and back after it: mid-tones keep their
 *          colour, the hottest cores go to white
 */
export const FILM = { toe: 0.0025, inset: 0.14 } as const;

/** One channel. Light in [0, inf) to display light in [0, 1): a soft toe, slope 1 in the middle, a smooth shoulder. */
export const filmCurve = {
  develop: (light: number): number => {
    const x = Math.max(0, light);
    const y = (x * x) / (x + FILM.toe);
    return y / Math.sqrt(1 + y * y);
  },
  /** Display light in [0, 1) back to the light that gave it. */
  undevelop: (display: number): number => {
    const d = Math.max(0, display);
    const y = d / Math.sqrt(1 - d * d);
    return 0.5 * (y + Math.sqrt(y * y + 4 * y * FILM.toe));
  },
};

/** Exposed scene-linear colour to display-linear colour, each channel in [0, 1]. */
export function filmResponse([r, g, b]: Rgb): Rgb {
  const keep = 1 - FILM.inset;
  const grey = FILM.inset * (LUMINANCE[0] * r + LUMINANCE[1] * g + LUMINANCE[2] * b);
  const dr = filmCurve.develop(keep * r + grey);
  const dg = filmCurve.develop(keep * g + grey);
  const db = filmCurve.develop(keep * b + grey);
  const back = FILM.inset * (LUMINANCE[0] * dr + LUMINANCE[1] * dg + LUMINANCE[2] * db);
  const out = (d: number) => Math.min(1, Math.max(0, (d - back) / keep));
  return [out(dr), out(dg), out(db)];
}

/** Brightest display light that is turned back; the film reaches 1 only for endless light. */
export const BRIGHTEST = 0.9995;

/** Display-linear colour back to the exposed scene-linear colour that gives it: the inverse of `filmResponse`. */
export function filmUnresponse([r, g, b]: Rgb): Rgb {
  const keep = 1 - FILM.inset;
  const grey = FILM.inset * (LUMINANCE[0] * r + LUMINANCE[1] * g + LUMINANCE[2] * b);
  const light = (d: number) => filmCurve.undevelop(Math.min(BRIGHTEST, keep * d + grey));
  const [sr, sg, sb] = [light(r), light(g), light(b)];
  const back = FILM.inset * (LUMINANCE[0] * sr + LUMINANCE[1] * sg + LUMINANCE[2] * sb);
  return [(sr - back) / keep, (sg - back) / keep, (sb - back) / keep];
}
