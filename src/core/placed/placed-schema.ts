import { array, boolean, number, object, type InferType } from 'yup';
import { hash, id, name, platePoint, ranged, unique } from '../fields/fields';
import { cutPasses } from '../matte/matte-schema';

/** Most placed pictures of a scene. */
export const MOST_PLACED = 40;

/** The part of a picture that stands: its sides as fractions of the picture's. */
const bodySchema = object({
  left: ranged('strength'),
  top: ranged('strength'),
  right: ranged('strength'),
  bottom: ranged('strength'),
})
  .noUnknown()
  .required()
  .test('body', 'what stands of a placed picture has no size', ({ left, top, right, bottom }) => {
    return left < right && top < bottom;
  });

/** What of a picture is kept where it does not say so itself: a matte on it, with its edge led and softened. */
const cutSchema = object({
  passes: cutPasses,
  refine: ranged('refine'),
  grow: ranged('grow'),
  feather: ranged('feather'),
})
  .noUnknown()
  .optional()
  .default(undefined);

const side = () => number().strict().required().integer().min(1).max(40000);

/** Something cut from another picture, standing on its foot. */
export const placedSchema = object({
  id: id(),
  name: name(),
  /** SHA-256 of the picture's file, and its size. */
  asset: hash('asset'),
  width: side(),
  height: side(),
  /** SHA-256 of its own coverage, where its file has one. */
  alpha: hash('alpha').optional(),
  cut: cutSchema,
  body: bodySchema,
  /** The place of the plate on which the middle of its lower side stands, or hangs. */
  foot: platePoint(),
  /** Whether it hangs on the wall that is seen at its foot. */
  hangs: boolean().strict().required(),
  /** Of what stands, metres. */
  tall: ranged('placedTall'),
  flip: boolean().strict().required(),
  /** How far it faces aside, and how far it leans to a side, degrees. */
  turn: ranged('placedTurn'),
  lean: ranged('placedLean'),
  /** How far its own black, white and colour of light become the plate's. */
  match: ranged('strength'),
  /** By hand on top of that: stops, a shift of its black, mired. */
  exposure: ranged('place'),
  black: ranged('placedBlack'),
  warmth: ranged('warmth'),
  /** Radius of its blur, fraction of the plate's width. */
  soft: ranged('placedSoft'),
  /** Of the exposure whose grain it is given. */
  grain: ranged('iso'),
  /** How round it is, how far its fine shading creases it, how it shines. */
  roundness: ranged('strength'),
  crease: ranged('strength'),
  sheen: ranged('strength'),
  roughness: ranged('roughness'),
  /** How far it keeps the sky's light off the ground at its foot. */
  contact: ranged('strength'),
  /** The matte of what stands in front of it. */
  behind: id().optional(),
})
  .noUnknown()
  .required();

export const allPlacedSchema = array(placedSchema)
  .required()
  .max(MOST_PLACED, `a scene holds at most ${MOST_PLACED} placed pictures`)
  .test('unique', 'two placed pictures have the same id', unique);

export type Placed = InferType<typeof placedSchema>;
export type PlacedBody = Placed['body'];
export type PlacedCut = NonNullable<Placed['cut']>;

/** What a placed picture begins with. */
export const FIRST_PLACED = {
  ...{ hangs: false, flip: false, turn: 0, lean: 0 },
  ...{ match: 1, exposure: 0, black: 0, warmth: 0, soft: 0, grain: 0 },
  ...{ roundness: 0.5, crease: 0, sheen: 0, roughness: 0.4, contact: 0.8 },
} satisfies Partial<Placed>;

/** What a cut begins with: its edge follows the picture's. */
export const FIRST_CUT = { passes: [], refine: 0.006, grow: -0.001, feather: 0 } satisfies PlacedCut;

/** All of a picture. */
export const WHOLE_BODY: PlacedBody = { left: 0, top: 0, right: 1, bottom: 1 };
