import { mixed } from 'yup';
import { COORDINATE } from './fields';

/** Most places of one stroke. */
export const MOST_STROKE = 4000;

/** Whether a value is a coordinate of a place on the plate. */
export const isCoordinate = (value: unknown) =>
  typeof value === 'number' && value >= COORDINATE.min && value <= COORDINATE.max;

/** A path of places, `stride` numbers each; what follows u and v is 0 to 1. It is long and comes whole: it is checked in one loop. */
export const path = (stride: number) =>
  mixed<number[]>((value): value is number[] => Array.isArray(value))
    .required()
    .test('path', '${path} is not a path of places', (value) => {
      const numbers = value as unknown[];
      return (
        numbers.length % stride === 0 &&
        numbers.every((n, i) =>
          i % stride < 2 ? isCoordinate(n) : typeof n === 'number' && n >= 0 && n <= 1,
        )
      );
    })
    .test(
      'length',
      `a stroke has at most ${MOST_STROKE} places`,
      (value) => value.length <= stride * MOST_STROKE,
    )
    .meta({ json: { type: 'array', items: { type: 'number' }, maxItems: stride * MOST_STROKE } });
