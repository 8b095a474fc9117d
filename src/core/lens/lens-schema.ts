import { array, mixed, number, object, type InferType } from 'yup';
import { id, platePoint, ranged, unique } from '../fields/fields';
import { gelSchema } from '../fixture/fixture-base';

/** Most places of a lens of which something is said. */
export const MOST_LENS_POINTS = 500;

/** What the lens adds to the picture. How strong spikes and veil are is told by their faders. */
export const lensSchema = object({
  /** Whether spikes follow from the aperture, or each of their values is set by hand. */
  from: mixed<'aperture' | 'hand'>().oneOf(['aperture', 'hand']).required(),
  blades: ranged('blades'),
  roundness: ranged('strength'),
  /** Turn of the first spike, degrees from level. */
  turn: ranged('tilt'),
  number: ranged('spikes'),
  /** How far spikes reach at most, and how thick they begin, fractions of the width. */
  reach: ranged('spikeReach'),
  thickness: ranged('spikeThickness'),
  /** How little they widen outward. */
  crisp: ranged('strength'),
  /** Light of the heart against that of the spikes. */
  heart: ranged('halo'),
  /** How far spikes take one colour instead of each source's own, and that colour. */
  tint: ranged('strength'),
  gel: gelSchema,
  /** How far the veil reaches, fraction of the width. */
  veilReach: ranged('veilReach'),
  /** The matte within which sources get spikes; none: everywhere. */
  within: id().optional(),
  /** Places of which something is said: their spikes against what they would be, stops; at the lowest there are none. */
  points: array(
    object({ id: id(), at: platePoint(), stops: ranged('level') })
      .noUnknown()
      .required(),
  )
    .required()
    .max(MOST_LENS_POINTS)
    .test('unique', 'two places of the lens have the same id', unique),
  grain: object({
    /** Sensitivity that a night was exposed with, ISO; 0: no grain. */
    iso: ranged('iso'),
    /** Size of a grain, in 6,000ths of the width. */
    size: ranged('grainSize'),
    color: ranged('strength'),
    seed: number().strict().required().integer().min(0).max(9999),
  })
    .noUnknown()
    .required(),
})
  .noUnknown()
  .required();

export type LensSettings = InferType<typeof lensSchema>;
export type LensPoint = LensSettings['points'][number];

/** A good lens of eight blades, stopped down a little. */
export const FIRST_LENS: LensSettings = {
  ...{ from: 'aperture', blades: 8, roundness: 0.25, turn: 12 },
  ...{ number: 8, reach: 0.12, thickness: 0.0007, crisp: 0.9, heart: 1 },
  ...{ tint: 0, gel: { from: 'kelvin', kelvin: 4000, color: [1, 1, 1] }, veilReach: 0.12 },
  points: [],
  grain: { iso: 0, size: 1.5, color: 0.4, seed: 1 },
};
