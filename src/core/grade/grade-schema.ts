import { array, boolean, mixed, object, string, type InferType } from 'yup';
import { COLOR_FORM, fraction, hash, isColor, name, ranged } from '../fields/fields';

/** Most points of a curve, and most stops of colour by tone. */
export const MOST_POINTS = 16;

/** Least distance of two points of a curve. */
export const POINT_GAP = 0.005;

export const shapeSchema = object({
  /** What is shaped: luminance, so that no colour shifts, or each channel for itself. */
  on: string().oneOf(['luminance', 'colour']).required(),
  black: ranged('blackPoint'),
  white: ranged('whitePoint'),
  /** Midtone, stops of the exponent. */
  middle: ranged('middle'),
  /** The brightest tone that comes out. */
  ceiling: ranged('ceiling'),
  /** The curve, from left to right. */
  points: array(object({ x: fraction(), y: fraction() }).noUnknown().required())
    .required()
    .min(2)
    .max(MOST_POINTS)
    .test('rising', 'the points of the curve do not stand from left to right', (points) =>
      (points as ({ x: number } | null)[]).every(
        (point, i) => i === 0 || Number(point?.x) - Number(points[i - 1]?.x) >= POINT_GAP - 1e-9,
      ),
    ),
})
  .noUnknown()
  .required();

/** A colour as sRGB codes, 0 to 1. */
export type CodedColor = [r: number, g: number, b: number];

const isCoded = (value: unknown): value is CodedColor =>
  isColor(value) && value.every((channel) => channel <= 1);

export const byToneSchema = object({
  strength: ranged('strength'),
  stops: array(
    object({
      at: fraction(),
      color: mixed<CodedColor>((value): value is CodedColor => isCoded(value))
        .required()
        .meta({ json: { ...COLOR_FORM, items: { type: 'number', minimum: 0, maximum: 1 } } }),
    })
      .noUnknown()
      .required(),
  )
    .required()
    .min(1)
    .max(MOST_POINTS),
})
  .noUnknown()
  .required();

export const refitSchema = object({
  /** Measured anew whenever the night changes; else `low` and `high` count. */
  always: boolean().strict().required(),
  low: ranged('tone'),
  high: ranged('tone'),
})
  .noUnknown()
  .required();

export const lutSchema = object({
  /** SHA-256 of the .cube file. */
  asset: hash('lut.asset'),
  name: name(),
  strength: ranged('strength'),
})
  .noUnknown()
  .nullable()
  .defined();

/** How a night's tones are shaped and coloured. */
export interface GradeSettings {
  shape: InferType<typeof shapeSchema>;
  byTone: InferType<typeof byToneSchema>;
  refit: InferType<typeof refitSchema>;
  lut: InferType<typeof lutSchema>;
}
