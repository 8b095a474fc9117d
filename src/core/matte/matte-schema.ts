import { array, boolean, mixed, object, string, type InferType, type Schema } from 'yup';
import {
  EDGE_ACTS,
  JOINS,
  PRESSURE_ACTS,
  type EdgeStroke,
  type PaintStroke,
  type Pass,
  type PassKind,
} from './pass';
import type { OutlinePoint } from '../geometry/flatten-outline';
import { COLOR_FORM, hash, id, isColor, name, platePoint, ranged, type PickedColor } from '../fields/fields';
import { isCoordinate, path } from '../fields/path';

/** Most points of an outline, strokes of a pass, passes of a matte, mattes of a scene, places of a night. */
export const MOST_OUTLINE = 4000;
export const MOST_STROKES = 500;
export const MOST_PAINTED = 30_000;
export const MOST_PASSES = 40;
export const MOST_MATTES = 50;
export const MOST_PLACES = 20;

const joined = { id: id(), join: string().oneOf(JOINS).required() };

/* Outlines are long and come whole: they are checked in a loop of their own. */

const isOffset = (value: unknown) => {
  const { u, v, ...rest } = (value ?? {}) as { u?: unknown; v?: unknown };
  return Object.keys(rest).length === 0 && isCoordinate(u) && isCoordinate(v);
};

const isOutline = (value: unknown): value is OutlinePoint[] =>
  Array.isArray(value) &&
  value.every((point: OutlinePoint | null) => {
    const { in: before, out: after, ...place } = point ?? ({} as OutlinePoint);
    return (
      isOffset(place) &&
      (before === undefined || isOffset(before)) &&
      (after === undefined || isOffset(after))
    );
  });

const strokes = <T>(of: string, fields: Record<keyof T, Schema>) =>
  array(object(fields).noUnknown().required())
    .required()
    .max(MOST_STROKES, `${of} has at most ${MOST_STROKES} strokes`)
    .test(
      'places',
      `the strokes of ${of} have at most ${MOST_PAINTED} places`,
      (drawn) =>
        (drawn as unknown as ({ path?: number[] } | null)[]).reduce(
          (sum, stroke) => sum + (stroke?.path?.length ?? 0),
          0,
        ) <=
        3 * MOST_PAINTED,
    );

/** Strokes painted by hand. @param of what they are of, with its article */
export const paintStrokes = (of: string) =>
  strokes<PaintStroke>(of, {
    path: path(3),
    size: ranged('brush'),
    soft: ranged('strength'),
    flow: ranged('strength'),
    strength: ranged('strength'),
    erase: boolean().strict().required(),
    pressure: string().oneOf(PRESSURE_ACTS).required(),
  });

const OFFSET_FORM = {
  type: 'object',
  properties: { u: { type: 'number' }, v: { type: 'number' } },
  required: ['u', 'v'],
} as const;

/** A point of an outline in JSON Schema: a place, and where its way bends before and behind it. */
const OUTLINE_POINT = {
  ...OFFSET_FORM,
  properties: { ...OFFSET_FORM.properties, in: OFFSET_FORM, out: OFFSET_FORM },
} as const;

const PASS_SCHEMAS: Record<PassKind, Schema> = {
  sky: object({ ...joined, kind: string().required() }).noUnknown(),
  shadow: object({ ...joined, kind: string().required() }).noUnknown(),
  outline: object({
    ...joined,
    kind: string().required(),
    points: mixed<OutlinePoint[]>(isOutline)
      .required()
      .test(
        'length',
        `an outline has at most ${MOST_OUTLINE} points`,
        (points) => points.length <= MOST_OUTLINE,
      )
      .meta({ json: { type: 'array', items: OUTLINE_POINT, maxItems: MOST_OUTLINE } }),
  }).noUnknown(),
  edge: object({
    ...joined,
    kind: string().required(),
    strokes: strokes<EdgeStroke>('a pass', {
      act: string().oneOf(EDGE_ACTS).required(),
      path: path(2),
      size: ranged('brush'),
    }),
    asset: hash('asset').optional(),
  }).noUnknown(),
  paint: object({
    ...joined,
    kind: string().required(),
    strokes: paintStrokes('a pass'),
  }).noUnknown(),
  matte: object({ ...joined, kind: string().required(), matte: id() }).noUnknown(),
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
    color: mixed<PickedColor>((value): value is PickedColor => isColor(value))
      .required()
      .meta({ json: COLOR_FORM }),
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
    breadth: ranged('breadth'),
    soft: ranged('strength'),
  }).noUnknown(),
};

const hasKind = (value: unknown): value is Pass =>
  typeof value === 'object' && value !== null && (value as Pass).kind in PASS_SCHEMAS;

/** A pass is checked by the schema of its kind. */
const passSchema = mixed<Pass>((value): value is Pass => hasKind(value))
  .required()
  .meta({ variants: PASS_SCHEMAS })
  .test('pass', function check(value) {
    try {
      PASS_SCHEMAS[value.kind].validateSync(value, { strict: true });
      return true;
    } catch (error) {
      return this.createError({ message: `${this.path}: ${(error as Error).message}` });
    }
  });

const passesSchema = array(passSchema).required().max(MOST_PASSES);

/** What a picture is cut out by: passes that know nothing of the plate around it. */
export const CUT_KINDS = ['outline', 'edge', 'paint'] as const satisfies readonly PassKind[];

/** The passes of a cut. */
export const cutPasses = passesSchema.test('cut', 'a cut is made of outlines and strokes', (passes) =>
  passes.every(({ kind }) => (CUT_KINDS as readonly PassKind[]).includes(kind)),
);

export const matteSchema = object({
  id: id(),
  name: name(),
  passes: passesSchema,
  /** Window in which the edge is made to follow the plate's, fraction of its width; 0 leaves it as it is. */
  refine: ranged('refine'),
  /** How far the edge is moved outward, fraction of the plate's width. */
  grow: ranged('grow'),
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

export type Matte = InferType<typeof matteSchema>;
export type Place = InferType<typeof placeSchema>;
