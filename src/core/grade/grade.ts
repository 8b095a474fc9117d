import { srgb } from '../color/srgb';
import type { GradeSettings } from './grade-schema';
import { colorByTone } from './color-by-tone';
import { toneShape } from './tone-shape';

/** Steps of the tables over the square root of display light, and of the table over tones. */
export const GRADE_STEPS = 1024;
export const TONE_STEPS = 1024;

/** Where each table begins in the one array that holds them, and how long that is. */
export const GRADE_TABLES = {
  /** Square root of light to shaped tone; to shaped light when the grade works on luminance. */
  shape: 0,
  /** Square root of light to tone. */
  encode: GRADE_STEPS + 1,
  /** Tone to light. */
  decode: 2 * (GRADE_STEPS + 1),
  /** Tone to its colour, interleaved. */
  byTone: 3 * (GRADE_STEPS + 1),
  length: 3 * (GRADE_STEPS + 1) + 3 * (TONE_STEPS + 1),
} as const;

/** How the darkened picture is shaped, ready to run: numbers beside tables. */
export interface Grade {
  onLuminance: boolean;
  /** How far tones take their colours, 0 to 1. */
  byTone: number;
  /** Tones from `low` are stretched by `stretch`. */
  low: number;
  stretch: number;
  /** Strength of the look-up table, 0 to 1. */
  lut: number;
  ceiling: number;
}

/** Tones that a picture occupies. */
export interface ToneRange {
  low: number;
  high: number;
}

/** Narrowest range that is stretched. */
const NARROWEST = 0.02;

/** Whether a night leaves the tones as the film gives them. */
export function isPlain({ shape, byTone, refit, lut }: GradeSettings): boolean {
  const { black, white, middle, points, ceiling } = shape;
  const straight = points.every(({ x, y }) => x === y) && points[0].x === 0 && points.at(-1)!.x === 1;
  const shaped = black !== 0 || white !== 1 || middle !== 0 || !straight || ceiling < 1;
  return !shaped && byTone.strength === 0 && !refits(refit) && (!lut || lut.strength === 0);
}

const refits = ({ always, low, high }: GradeSettings['refit']) => always || low !== 0 || high !== 1;

/** The numbers of a night's grade. `range`: the tones that it occupies, where it is always refitted. */
export function gradeOf({ shape, byTone, refit, lut }: GradeSettings, range?: ToneRange): Grade {
  const { low, high } = refit.always && range ? range : refit;
  return {
    onLuminance: shape.on === 'luminance',
    byTone: byTone.strength,
    low,
    stretch: 1 / Math.max(NARROWEST, high - low),
    lut: lut?.strength ?? 0,
    ceiling: shape.ceiling,
  };
}

/** Fills the tables of a night's grade; `out` has GRADE_TABLES.length floats. */
export function gradeTables(
  out: Float32Array,
  { shape, byTone }: Pick<GradeSettings, 'shape' | 'byTone'>,
): void {
  const shaped = toneShape(shape);
  const color = colorByTone(byTone.stops);
  for (let i = 0; i <= GRADE_STEPS; i++) {
    const root = i / GRADE_STEPS;
    const tone = srgb.encode(root * root);
    out[GRADE_TABLES.shape + i] = shape.on === 'luminance' ? srgb.decode(shaped(tone)) : shaped(tone);
    out[GRADE_TABLES.encode + i] = tone;
    out[GRADE_TABLES.decode + i] = srgb.decode(root);
  }
  for (let i = 0; i <= TONE_STEPS; i++) out.set(color(i / TONE_STEPS), GRADE_TABLES.byTone + 3 * i);
}
