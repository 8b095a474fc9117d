import { array, number, object, type InferType } from 'yup';
import { id, name, platePoint, ranged, unique } from '../fields/fields';

/** Most drifts of a scene. */
export const MOST_DRIFTS = 12;

/** Smoke or mist at a place and a depth. */
export const driftSchema = object({
  id: id(),
  name: name(),
  /** Its middle as it is seen, and the place on the ground as far off. */
  at: platePoint(),
  foot: platePoint(),
  /** How far it reaches to either side, fraction of the plate's width, and its height over its breadth. */
  size: ranged('driftSize'),
  tall: ranged('driftTall'),
  /** What of the light behind its thickest part it holds back. */
  density: ranged('strength'),
  /** How far it is torn into wisps, and how far the air has carried them. */
  wisps: ranged('strength'),
  carried: ranged('carried'),
  seed: number().strict().required().integer().min(0).max(9999),
})
  .noUnknown()
  .required();

export const driftsSchema = array(driftSchema)
  .required()
  .max(MOST_DRIFTS, `a scene has at most ${MOST_DRIFTS} drifts`)
  .test('unique', 'two drifts have the same id', unique);

export type Drift = InferType<typeof driftSchema>;

/** What a new drift begins with. */
export const FIRST_DRIFT = {
  ...{ size: 0.16, tall: 0.6, density: 0.45, wisps: 0.7, carried: 0, seed: 1 },
} satisfies Partial<Drift>;
