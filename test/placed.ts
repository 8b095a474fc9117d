import { FIRST_PLACED, WHOLE_BODY, type Placed } from '@/core/placed/placed-schema';

/** The asset of a picture that tests place: a chart of greys. */
export const CHART = 'c'.repeat(64);

/** A picture placed in the street. */
export const testPlaced = (id: string, more: Partial<Placed> = {}): Placed => ({
  ...FIRST_PLACED,
  ...{ id, name: id, asset: CHART, width: 80, height: 160, cut: undefined, body: WHOLE_BODY },
  ...{ foot: { u: 0.5, v: 0.8 }, tall: 1.6, contact: 0, roundness: 0 },
  ...more,
});
