import { LUMINANCE } from '../color/luminance';
import type { RgbPlanes } from '../plane/plane';
import { DISPLAY_CODE_STEPS } from './display-codes';
import { FILM, filmCurve } from './film-response';

/**
 * Develops scene-linear light to display codes with full alpha.
 *
 * @param out RGBA codes, 4 a pixel: bytes, or 16-bit words with matching `codes`
 * @param codes table from `createDisplayCodes`, for 255 or 65535 levels
 */
export function developLight(
  out: Uint8ClampedArray | Uint16Array,
  { r, g, b }: RgbPlanes,
  codes: Uint16Array,
): void {
  const [wr, wg, wb] = LUMINANCE;
  const { develop } = filmCurve;
  const inset = FILM.inset;
  const keep = 1 - inset;
  const last = DISPLAY_CODE_STEPS - 1;
  const opaque = codes[last];
  const nearest = (display: number) =>
    codes[display <= 0 ? 0 : display >= 1 ? last : (Math.sqrt(display) * last + 0.5) | 0];
  // There are more words of 16 bits than entries of the table: they lie on lines between them.
  const between = (display: number) => {
    if (!(display > 0)) return codes[0];
    if (display >= 1) return codes[last];
    const at = Math.sqrt(display) * last;
    const step = at | 0;
    return codes[step] + (at - step) * (codes[step + 1] - codes[step]) + 0.5;
  };
  const code = out instanceof Uint16Array ? between : nearest;
  for (let i = 0, o = 0; i < r.length; i++, o += 4) {
    const into = inset * (wr * r[i] + wg * g[i] + wb * b[i]);
    const dr = develop(keep * r[i] + into);
    const dg = develop(keep * g[i] + into);
    const db = develop(keep * b[i] + into);
    const back = inset * (wr * dr + wg * dg + wb * db);
    out[o] = code((dr - back) / keep);
    out[o + 1] = code((dg - back) / keep);
    out[o + 2] = code((db - back) / keep);
    out[o + 3] = opaque;
  }
}
