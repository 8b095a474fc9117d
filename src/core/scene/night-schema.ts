import { array, boolean, mixed, number, object, string } from 'yup';
import { fraction, hash, isColor, name, platePoint, ranged } from '../fields/fields';

/** Most points of a curve, and most stops of colour by tone. */
export const MOST_POINTS = 16;

/** Least distance of two points of a curve. */
export const POINT_GAP = 0.005;

const shapeSchema = object({
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

const byToneSchema = object({
  strength: ranged('strength'),
  stops: array(
    object({
      at: fraction(),
      color: mixed<CodedColor>((value): value is CodedColor => isCoded(value)).required(),
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

const refitSchema = object({
  /** Measured anew whenever the night changes; else `low` and `high` count. */
  always: boolean().strict().required(),
  low: ranged('tone'),
  high: ranged('tone'),
})
  .noUnknown()
  .required();

const lutSchema = object({
  /** SHA-256 of the .cube file. */
  asset: hash('lut.asset'),
  name: name(),
  strength: ranged('strength'),
})
  .noUnknown()
  .nullable()
  .defined();

const surroundSchema = object({
  /** Stops by which everything outside the pools sinks. */
  stops: ranged('darken'),
  at: platePoint(),
  /** Half axes of the round pool, fractions of the plate's width and height. */
  across: ranged('poolSize'),
  down: ranged('poolSize'),
  soft: ranged('strength'),
  /** Reach of a pool around every burning lamp, in lengths of its stalk; 0 opens none. */
  lamps: ranged('lampPools'),
})
  .noUnknown()
  .required();

/** The whole day-to-night conversion; a nocturne is one of these. */
export const nightSchema = object({
  /** Place on the hour line, 0 sunset to 1 deep night: sets the ambient light in lux. */
  hour: number().strict().required().min(0).max(1),
  exposure: ranged('exposure'),
  kelvin: ranged('kelvin'),
  tint: ranged('tint'),
  saturation: ranged('saturation'),
  /** How far what only ambient light shows is seen by rods alone: without colour, reds dark. */
  rods: ranged('rods'),
  /** How far what was bright by day is held down. */
  hold: ranged('hold'),
  /** How much of the day's own shading is taken out. */
  evenOut: ranged('evenOut'),
  haze: ranged('haze'),
  /** Colour of the haze, and its light against the ambient light. */
  hazeKelvin: ranged('kelvin'),
  hazeGlow: ranged('hazeGlow'),
  shape: shapeSchema,
  byTone: byToneSchema,
  refit: refitSchema,
  lut: lutSchema,
  surround: surroundSchema,
})
  .noUnknown()
  .required();
