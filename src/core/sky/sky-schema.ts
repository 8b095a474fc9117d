import { array, mixed, number, object, string, type InferType } from 'yup';
import { hash, name, platePoint, ranged } from '../fields/fields';
import { STAR_CLASSES } from './star-color';

/** A moment, as ISO 8601 in universal time; years as astronomers' tables have them. */
const moment = () =>
  string()
    .strict()
    .required()
    .matches(/^\d{4}-\d\d-\d\dT\d\d:\d\dZ$/, '${path} is no moment')
    .test('real', '${path} is no moment', (value) => !Number.isNaN(Date.parse(value)));

/** What stands behind the skyline. */
export const skySchema = object({
  /** `plate`: the plate's own sky, darkened with the land, as scenes had it before there was another. `hour`: the sky of the hour. */
  from: mixed<'plate' | 'hour'>().oneOf(['plate', 'hour']).required(),
  /** How far the plate's own clouds stay in it. */
  own: ranged('strength'),
  /** Where the sun went, degrees to the right of where the eye looks; the band over it, stops. */
  sun: ranged('azimuth'),
  afterglow: ranged('skyStops'),
  /** The town's glow in the air. */
  town: ranged('skyStops'),
  townKelvin: ranged('kelvin'),
  clouds: object({
    cover: ranged('strength'),
    soft: ranged('strength'),
    size: ranged('cloudSize'),
    height: ranged('cloudHeight'),
    drift: ranged('driftKm'),
    seed: ranged('seed'),
    /** What the scene's own lamps give to them, stops. */
    under: ranged('skyStops'),
  })
    .noUnknown()
    .required(),
  stars: object({
    /** Scattered by a seed, or those of the true sky. */
    from: mixed<'seed' | 'true'>().oneOf(['seed', 'true']).required(),
    seed: ranged('seed'),
    /** Magnitude of the faintest that are shown. */
    faintest: ranged('magnitude'),
    size: ranged('starSize'),
    /** A strength for each class of colours, the hottest first. */
    colors: array(number().strict().required().min(0).max(3)).required().length(STAR_CLASSES.length),
    /** For how long they are drawn out, minutes. */
    trail: ranged('trail'),
    /** Where they end: a place on a line, its tilt, how broad the change is in widths of the plate. */
    fall: object({ at: platePoint(), turn: ranged('tilt'), soft: ranged('strength') })
      .noUnknown()
      .required(),
  })
    .noUnknown()
    .required(),
  moon: object({
    phase: ranged('strength'),
    size: ranged('moonSize'),
    tilt: ranged('tilt'),
    /** How strongly haze and cloud glow around it. */
    halo: ranged('strength'),
  })
    .noUnknown()
    .required(),
  /** A picture of a sky of one's own, or none. */
  picture: object({
    /** SHA-256 of its file, its name for people, its size in pixels. */
    asset: hash('sky.picture.asset'),
    name: name(),
    width: number().strict().required().integer().min(1).max(40000),
    height: number().strict().required().integer().min(1).max(40000),
    /** Its middle on the plate, its width as a fraction of the plate's, its turn in degrees. */
    at: platePoint(),
    across: ranged('skyAcross'),
    turn: ranged('tilt'),
    /** How much of it shows; stops over the hour's light; how far it takes the hour's colour. */
    share: ranged('strength'),
    exposure: ranged('skyStops'),
    fit: ranged('strength'),
  })
    .noUnknown()
    .nullable()
    .defined(),
  /** When and where the photo looks at the true sky: universal time, degrees north and east, and the bearing that the eye looks to. */
  when: object({
    moment: moment(),
    latitude: ranged('latitude'),
    longitude: ranged('longitude'),
    bearing: ranged('compass'),
  })
    .noUnknown()
    .required(),
})
  .noUnknown()
  .required();

export type SkySettings = InferType<typeof skySchema>;
export type SkyPicture = NonNullable<SkySettings['picture']>;

/** The sky that a new scene begins with. */
export const FIRST_SKY: SkySettings = {
  from: 'hour',
  own: 0.4,
  sun: -40,
  afterglow: 0,
  town: 0,
  townKelvin: 2700,
  clouds: { cover: 0, soft: 0.5, size: 1, height: 1200, drift: 0, seed: 1, under: 0 },
  stars: {
    from: 'seed',
    seed: 1,
    faintest: 6,
    size: 0.0006,
    colors: STAR_CLASSES.map(() => 1),
    trail: 0,
    fall: { at: { u: 0.5, v: 0.45 }, turn: 0, soft: 0.25 },
  },
  picture: null,
  moon: { phase: 0.5, size: 1.6, tilt: 0, halo: 0.4 },
  when: { moment: '2026-01-15T20:00Z', latitude: 50, longitude: 8, bearing: 180 },
};
