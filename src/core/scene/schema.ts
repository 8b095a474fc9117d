import { array, boolean, number, object, string, type InferType } from 'yup';
import { fixtureSchema, type Fixture } from '../fixture/fixture-schema';
import { hash, id, name, ranged, unique } from '../fields/fields';
import { lensSchema } from '../lens/lens-schema';
import { matteSchema, MOST_MATTES, MOST_PLACES, placeSchema } from '../matte/matte-schema';
import { driftsSchema } from '../drift/drift-schema';
import { nightSchema } from '../night/night-schema';
import { allPlacedSchema } from '../placed/placed-schema';
import { planSchema } from '../plan/plan-schema';
import { skySchema } from '../sky/sky-schema';
import { touchesSchema, type Touch } from '../touch/touch-schema';

/** Names a scene file's version; see `upgrade.ts` for older ones. */
export const SCENE_VERSION = 17;

/** Most fixtures that one scene holds. */
export const MOST_FIXTURES = 500;

/** How dark and bright parts of what lies beneath take a circuit's light. */
const gripSchema = object({
  /** Display tone up to which all takes the dark share; from the bright one on, the bright share. */
  dark: ranged('tone'),
  bright: ranged('tone'),
  /** What of the light they take; 1 is all of it. */
  darkShare: ranged('gripShare'),
  brightShare: ranged('gripShare'),
})
  .noUnknown()
  .required();

const circuitSchema = object({
  id: id(),
  name: name(),
  level: ranged('level'),
  lampLevel: ranged('level'),
  spillLevel: ranged('level'),
  /** Shift of all its gels, mired: warmer above 0. */
  warmth: ranged('warmth'),
  grip: gripSchema,
  muted: boolean().strict().required(),
  solo: boolean().strict().required(),
})
  .noUnknown()
  .required();

/** Most cues that one scene keeps. */
export const MOST_CUES = 40;

const cueSchema = object({
  id: id(),
  name: name(),
  ambient: ranged('level'),
  sky: ranged('level'),
  moon: ranged('level'),
  stars: ranged('level'),
  haze: ranged('level'),
  spikes: ranged('level'),
  veil: ranged('level'),
  master: ranged('level'),
  /** The circuits as they were; one that is new since then is left as it is. */
  circuits: array(
    object({
      id: id(),
      level: ranged('level'),
      lampLevel: ranged('level'),
      spillLevel: ranged('level'),
      warmth: ranged('warmth'),
      muted: boolean().strict().required(),
    })
      .noUnknown()
      .required(),
  )
    .required()
    .max(100),
})
  .noUnknown()
  .required();

/** The document: one photo being turned to night, with all its decisions. */
export const sceneSchema = object({
  format: string().oneOf(['sundew-scene']).required(),
  version: number().oneOf([SCENE_VERSION]).required(),
  title: name(),
  plate: object({
    /** SHA-256 of the plate's file. */
    asset: hash('plate.asset'),
    width: number().strict().required().integer().min(1).max(40000),
    height: number().strict().required().integer().min(1).max(40000),
  })
    .noUnknown()
    .required(),
  /** What of the plate the picture shows: centre, sides as fractions of the plate's, turn in degrees. */
  frame: object({
    u: ranged('framePlace'),
    v: ranged('framePlace'),
    width: ranged('frameSide'),
    height: ranged('frameSide'),
    angle: ranged('angle'),
    /** Width over height that the frame keeps; 0 leaves it free. */
    ratio: number().strict().required().min(0).max(10),
  })
    .noUnknown()
    .required(),
  night: nightSchema,
  mattes: array(matteSchema)
    .required()
    .max(MOST_MATTES)
    .test('unique', 'two mattes have the same id', unique),
  places: array(placeSchema).required().max(MOST_PLACES),
  plan: planSchema,
  fixtures: array(fixtureSchema)
    .required()
    .max(MOST_FIXTURES, `a scene holds at most ${MOST_FIXTURES} fixtures`)
    .test('unique', 'two fixtures have the same id', unique),
  /** Light laid on by hand, in the order in which it was begun. */
  touches: touchesSchema,
  /** What was cut from other pictures and stands here. */
  placed: allPlacedSchema,
  /** Smoke and mist. */
  drifts: driftsSchema,
  circuits: array(circuitSchema).required().max(100).test('unique', 'two circuits have the same id', unique),
  sky: skySchema,
  /** Where the moon stands: degrees to the right of where the eye looks, and over the horizon. */
  moon: object({ azimuth: ranged('azimuth'), elevation: ranged('elevation'), kelvin: ranged('kelvin') })
    .noUnknown()
    .required(),
  /** What the lens adds. */
  lens: lensSchema,
  /** Remembered states of the desk. */
  cues: array(cueSchema).required().max(MOST_CUES).test('unique', 'two cues have the same id', unique),
  /** Faders that belong to no circuit, stops: the night's own light, the sky over it, the moon, the stars, the haze, what the lens adds, and all lamps. */
  desk: object({
    ambient: ranged('level'),
    sky: ranged('level'),
    moon: ranged('level'),
    stars: ranged('level'),
    haze: ranged('level'),
    spikes: ranged('level'),
    veil: ranged('level'),
    master: ranged('level'),
  })
    .noUnknown()
    .required(),
})
  .noUnknown()
  .required();

export type Cue = Scene['cues'][number];
export type Scene = Omit<InferType<typeof sceneSchema>, 'fixtures' | 'touches'> & {
  fixtures: Fixture[];
  touches: Touch[];
};
export type SceneFrame = Scene['frame'];
export type { Matte, Place } from '../matte/matte-schema';
export type { Night } from '../night/night-schema';
export type { LensSettings } from '../lens/lens-schema';
export type { Placed } from '../placed/placed-schema';
export type { Drift } from '../drift/drift-schema';
export type { Touch } from '../touch/touch-schema';
export type { SkySettings } from '../sky/sky-schema';
export type { GroundPlan } from '../plan/plan-schema';
export type { Fixture, FixtureValues } from '../fixture/fixture-schema';
export type { Gel } from '../fixture/fixture-base';
export type Grip = Circuit['grip'];
export type Moon = Scene['moon'];
export type Circuit = Scene['circuits'][number];
export type Desk = Scene['desk'];
