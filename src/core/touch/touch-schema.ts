import { array, boolean, mixed, object, type InferType } from 'yup';
import { RANGES, type Range } from '../fields/ranges';
import { id, name, unique } from '../fields/fields';
import { gelSchema } from '../fixture/fixture-base';
import { paintStrokes } from '../matte/matte-schema';
import type { PaintStroke } from '../matte/pass';

/** Most touches of a scene. */
export const MOST_TOUCHES = 60;

/** What a touch does: it lights surfaces, shines in the air, or lifts or holds the night's own light. */
export const TOUCH_ACTS = ['surface', 'air', 'lift'] as const;
export type TouchAct = (typeof TOUCH_ACTS)[number];

/** How much a touch gives where it is laid on fully, by what it does, and what a new one begins with. */
export const TOUCH_AMOUNTS: Record<TouchAct, { range: Range; start: number }> = {
  surface: { range: RANGES.touchLux, start: 30 },
  air: { range: RANGES.touchNits, start: 1.5 },
  lift: { range: RANGES.place, start: 1 },
};

/** Light that is laid on by hand, stroke by stroke. */
export const touchSchema = object({
  id: id(),
  name: name(),
  does: mixed<TouchAct>()
    .oneOf([...TOUCH_ACTS])
    .required(),
  /** The circuit that dims it; one that lifts the night's own light is on none. */
  circuit: id().optional(),
  gel: gelSchema,
  /** What it gives where it is laid on fully: lux, cd/m2 or stops. */
  amount: mixed<number>((value): value is number => typeof value === 'number')
    .required()
    .meta({ json: { type: 'number' } }),
  /** Where it is kept in; none: everywhere. */
  only: object({ matte: id(), outside: boolean().strict().required() })
    .noUnknown()
    .optional()
    .default(undefined),
  /** The fixture that surfaces have to face to take it; none: all take it alike. */
  toward: id().optional(),
  strokes: paintStrokes('a touch'),
})
  .noUnknown()
  .required()
  .test('amount', '${path}.amount is out of range', ({ does, amount }) => {
    const { range } = TOUCH_AMOUNTS[does];
    return amount >= range.min && amount <= range.max;
  })
  .test(
    'circuit',
    '${path} is on no circuit',
    ({ does, circuit }) => does === 'lift' || circuit !== undefined,
  );

export const touchesSchema = array(touchSchema)
  .required()
  .max(MOST_TOUCHES, `a scene has at most ${MOST_TOUCHES} touches`)
  .test('unique', 'two touches have the same id', unique);

export type Touch = Omit<InferType<typeof touchSchema>, 'strokes'> & { strokes: PaintStroke[] };
