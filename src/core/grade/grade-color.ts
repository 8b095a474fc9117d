import { LUMINANCE } from '../color/luminance';
import type { Rgb } from '../color/rgb';
import { applyLut } from './apply-lut';
import { underCeiling } from './ceiling';
import type { CubeLut } from './cube-lut';
import { GRADE_STEPS, GRADE_TABLES, TONE_STEPS, type Grade } from './grade';

/** Least luminance that is scaled; darker colours are raised as grey. */
export const DARKEST = 1e-5;

const clamp = (value: number) => Math.min(1, Math.max(0, value));

/** A value of a table between its entries; `at` from 0 to `steps`. */
function read(table: Float32Array, first: number, at: number, steps: number, stride = 1): number {
  const low = Math.min(steps - 1, Math.floor(at));
  const from = first + low * stride;
  return table[from] + (at - low) * (table[from + stride] - table[from]);
}

/**
 * Display light through a grade, up to but not counting the refit: shape, then colour by tone. Gives tones.
 *
 * @param light display-linear, each channel 0 to 1
 */
export function shadeColor(light: Rgb, grade: Grade, tables: Float32Array): Rgb {
  const [wr, wg, wb] = LUMINANCE;
  const overRoot = (first: number, value: number) =>
    read(tables, first, Math.sqrt(clamp(value)) * GRADE_STEPS, GRADE_STEPS);
  let tones: Rgb;
  if (grade.onLuminance) {
    const y = wr * light[0] + wg * light[1] + wb * light[2];
    const shaped = overRoot(GRADE_TABLES.shape, y);
    const gain = shaped / Math.max(DARKEST, y);
    const grey = shaped - gain * y;
    const encoded = (c: 0 | 1 | 2) => overRoot(GRADE_TABLES.encode, gain * light[c] + grey);
    tones = [encoded(0), encoded(1), encoded(2)];
  } else {
    const shaped = (c: 0 | 1 | 2) => overRoot(GRADE_TABLES.shape, light[c]);
    tones = [shaped(0), shaped(1), shaped(2)];
  }
  if (grade.byTone === 0) return tones;
  const at = clamp(wr * tones[0] + wg * tones[1] + wb * tones[2]) * TONE_STEPS;
  const toward = (c: 0 | 1 | 2) =>
    tones[c] + grade.byTone * (read(tables, GRADE_TABLES.byTone + c, at, TONE_STEPS, 3) - tones[c]);
  return [toward(0), toward(1), toward(2)];
}

/** Display light through a whole grade: shape, colour by tone, refit, look-up table, ceiling. Gives display light. */
export function gradeColor(light: Rgb, grade: Grade, tables: Float32Array, lut?: CubeLut): Rgb {
  const shaded = shadeColor(light, grade, tables);
  const refitted = (c: 0 | 1 | 2) => clamp((shaded[c] - grade.low) * grade.stretch);
  let tones: Rgb = [refitted(0), refitted(1), refitted(2)];
  if (lut && grade.lut > 0) {
    const looked = applyLut(lut, tones);
    const toward = (c: 0 | 1 | 2) => clamp(tones[c] + grade.lut * (looked[c] - tones[c]));
    tones = [toward(0), toward(1), toward(2)];
  }
  const brightest = Math.max(tones[0], tones[1], tones[2], DARKEST);
  const held = underCeiling(brightest, grade.ceiling) / brightest;
  const decoded = (c: 0 | 1 | 2) =>
    read(tables, GRADE_TABLES.decode, held * tones[c] * GRADE_STEPS, GRADE_STEPS);
  return [decoded(0), decoded(1), decoded(2)];
}
