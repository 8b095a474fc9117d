import { array, object, string, type InferType } from 'yup';
import { id, name, platePoint, ranged, unique } from '../fields/fields';
import { path } from '../fields/path';
import { SAID, type Said } from '../survey/said';

/** Most walls, standees, decks and glosses of a ground plan, each, and corners of one of them. */
export const MOST_SURFACES = 60;
export const MOST_CORNERS = 40;

/** Most strokes that say what a place is. */
export const MOST_SAID = 300;

/** What a surface gives back: how much of it as a mirror, how rough the mirror is, how far the plate's fine shading ripples it. */
const finish = {
  sheen: ranged('strength'),
  roughness: ranged('roughness'),
};
const rippled = { ...finish, crease: ranged('strength') };

/** The ground, and the matte within which alone it shines, if any. */
export const groundSchema = object({ ...rippled, wet: id().optional() })
  .noUnknown()
  .required();

/**
 * A wall: the corners of its foot on the ground, its height in metres, the matte at which it ends, if any, and how many stops darker by
 * day it is than what the sun shines on.
 */
export const wallSchema = object({
  id: id(),
  name: name(),
  foot: array(platePoint()).required().min(2).max(MOST_CORNERS),
  height: ranged('wallHeight'),
  until: id().optional(),
  dayShade: ranged('dayShade').optional(),
  ...rippled,
})
  .noUnknown()
  .required();

/** The far ends of the edges on the ground of a standee that is a box, and its height in metres. */
const boxSchema = object({ left: platePoint(), right: platePoint(), height: ranged('boxHeight') })
  .noUnknown()
  .optional()
  .default(undefined);

/** A matte that stands upright at its foot: how round it is, and how far the plate's fine shading creases it. */
export const standeeSchema = object({
  id: id(),
  name: name(),
  matte: id(),
  foot: platePoint(),
  roundness: ranged('strength'),
  crease: ranged('strength'),
  box: boxSchema,
  ...finish,
})
  .noUnknown()
  .required();

/** A surface, outlined as it is seen, at a height over the ground in metres: level, or rising from its lowest edge by a pitch in degrees. */
export const deckSchema = object({
  id: id(),
  name: name(),
  outline: array(platePoint()).required().min(3).max(MOST_CORNERS),
  height: ranged('deckHeight'),
  pitch: ranged('pitch').optional(),
  ...rippled,
})
  .noUnknown()
  .required();

/** A matte that shines, turned and leaning by some degrees: how round it is. */
export const glossSchema = object({
  id: id(),
  name: name(),
  matte: id(),
  turn: ranged('glossTurn'),
  lean: ranged('lean'),
  roundness: ranged('strength'),
  ...finish,
})
  .noUnknown()
  .required();

/** A stroke that says what a place of the plate is. */
const saidSchema = object({
  as: string<Said>()
    .oneOf([...SAID])
    .required(),
  path: path(2),
  size: ranged('brush'),
})
  .noUnknown()
  .required();

/** What is said of the place: horizon, eye, ground, and what stands and lies on it. */
export const planSchema = object({
  horizon: object({ left: ranged('horizon'), right: ranged('horizon') })
    .noUnknown()
    .required(),
  eyeHeight: ranged('eyeHeight'),
  lens: ranged('lens'),
  ground: groundSchema,
  /** How far surfaces that shine mirror what is around them. */
  mirrors: ranged('strength'),
  walls: array(wallSchema).required().max(MOST_SURFACES).test('unique', 'two walls have the same id', unique),
  standees: array(standeeSchema)
    .required()
    .max(MOST_SURFACES)
    .test('unique', 'two standees have the same id', unique),
  decks: array(deckSchema).required().max(MOST_SURFACES).test('unique', 'two decks have the same id', unique),
  glosses: array(glossSchema)
    .required()
    .max(MOST_SURFACES)
    .test('unique', 'two glosses have the same id', unique),
  /** What a person said by the brush that a place is; a later stroke is believed rather than one before it. */
  strokes: array(saidSchema).required().max(MOST_SAID, `a ground plan has at most ${MOST_SAID} strokes`),
  /** The matte of what the sun's own shadow darkens, and how far it is lifted out of it. */
  sunShadow: object({ matte: id(), lift: ranged('strength') })
    .noUnknown()
    .optional()
    .default(undefined),
})
  .noUnknown()
  .required();

export type GroundPlan = InferType<typeof planSchema>;
