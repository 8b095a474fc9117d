import { number, object, type InferType } from 'yup';
import { platePoint, ranged } from '../fields/fields';
import { byToneSchema, lutSchema, refitSchema, shapeSchema } from '../grade/grade-schema';

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
  /** How far the exposure is metered on the plate's land: 0 takes the plate as it was shot. */
  meter: ranged('meter'),
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

export type Night = InferType<typeof nightSchema>;
