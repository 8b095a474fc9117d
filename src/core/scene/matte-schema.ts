import { array, boolean, mixed, object, string, type Schema } from 'yup';
import { JOINS, type Pass, type PassKind } from '../matte/pass';
import { id, isColor, name, platePoint, ranged, type PickedColor } from './fields';

/** Most points of an outline, passes of a matte, mattes of a scene, and places of a night. */
export const MOST_OUTLINE = 2000;
export const MOST_PASSES = 40;
export const MOST_MATTES = 50;
export const MOST_PLACES = 20;

const joined = { id: id(), join: string().oneOf(JOINS).required() };

const PASS_SCHEMAS: Record<PassKind, Schema> = {
  sky: object({ ...joined, kind: string().required() }).noUnknown(),
  outline: object({
    ...joined,
    kind: string().required(),
    points: array(platePoint()).required().max(MOST_OUTLINE, `an outline has at most ${MOST_OUTLINE} points`),
  }).noUnknown(),
  tone: object({
    ...joined,
    kind: string().required(),
    low: ranged('tone'),
    high: ranged('tone'),
    soft: ranged('shoulder'),
  }).noUnknown(),
  colour: object({
    ...joined,
    kind: string().required(),
    color: mixed<PickedColor>((value): value is PickedColor => isColor(value)).required(),
    reach: ranged('reach'),
    soft: ranged('shoulder'),
  }).noUnknown(),
  area: object({
    ...joined,
    kind: string().required(),
    at: platePoint(),
    tolerance: ranged('tolerance'),
    connected: boolean().strict().required(),
  }).noUnknown(),
  ramp: object({
    ...joined,
    kind: string().required(),
    shape: string().oneOf(['straight', 'round']).required(),
    from: platePoint(),
    to: platePoint(),
    soft: ranged('strength'),
  }).noUnknown(),
};

const hasKind = (value: unknown): value is Pass =>
  typeof value === 'object' && value !== null && (value as Pass).kind in PASS_SCHEMAS;

/** A pass is checked by the schema of its kind. */
const passSchema = mixed<Pass>((value): value is Pass => hasKind(value))
  .required()
  .test('pass', function check(value) {
    try {
      PASS_SCHEMAS[value.kind].validateSync(value, { strict: true });
      return true;
    } catch (error) {
      return this.createError({ message: `${this.path}: ${(error as Error).message}` });
    }
  });

export const matteSchema = object({
  id: id(),
  name: name(),
  passes: array(passSchema).required().max(MOST_PASSES),
  /** Radius over which the edge is softened, fraction of the plate's width. */
  feather: ranged('feather'),
  invert: boolean().strict().required(),
})
  .noUnknown()
  .required();

/** A matte inside or outside of which the night's own light is lifted or lowered. */
export const placeSchema = object({
  matte: id(),
  outside: boolean().strict().required(),
  stops: ranged('place'),
})
  .noUnknown()
  .required();
