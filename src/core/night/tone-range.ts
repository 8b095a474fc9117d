import { LUMINANCE } from '../color/luminance';
import { filmResponse } from '../film/film-response';
import { shadeColor } from '../grade/grade-color';
import type { ToneRange } from '../grade/grade';
import type { RgbPlanes } from '../plane/plane';
import type { AmbientLight } from './ambient-light';
import { ambientColor, type GradeKit } from './night-base';

/** Share of the pixels that may fall outside at either end. */
const OUTSIDE = 0.002;
const BINS = 1024;

/** The tones that a night occupies before it is refitted, measured on a small copy of the plate. */
export function toneRange(
  plate: RgbPlanes,
  light: AmbientLight,
  { grade, tables }: GradeKit,
  open?: Float32Array,
): ToneRange {
  const counts = new Uint32Array(BINS + 1);
  const [wr, wg, wb] = LUMINANCE;
  const pixels = plate.r.length;
  for (let i = 0; i < pixels; i++) {
    const ambient = ambientColor([plate.r[i], plate.g[i], plate.b[i]], light, open?.[i]);
    const [r, g, b] = shadeColor(filmResponse(ambient), grade, tables);
    counts[Math.round(BINS * Math.min(1, Math.max(0, wr * r + wg * g + wb * b)))]++;
  }
  const bound = OUTSIDE * pixels;
  const from = (step: 1 | -1) => {
    let seen = 0;
    for (let bin = step > 0 ? 0 : BINS; bin >= 0 && bin <= BINS; bin += step) {
      seen += counts[bin];
      if (seen > bound) return bin / BINS;
    }
    return step > 0 ? 0 : 1;
  };
  return { low: from(1), high: from(-1) };
}
