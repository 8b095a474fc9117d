import { array, boolean, mixed, number, object, string, type InferType } from 'yup';
import { RANGES } from './ranges';

/** Names a scene file's version; see `upgrade.ts` for older ones. */
export const SCENE_VERSION = 2;

/** Most fixtures that one scene holds. */
export const MOST_FIXTURES = 500;

const ranged = (name: keyof typeof RANGES) =>
  number().strict().required().min(RANGES[name].min).max(RANGES[name].max);

const name = () => string().strict().required().trim().max(80);
const id = () =>
  string()
    .strict()
    .required()
    .matches(/^[\w-]{1,40}$/, '${path} is not a valid id');

/** A place on the plate; it may lie outside the picture, but not absurdly far. */
const platePoint = () =>
  object({
    u: number().strict().required().min(-4).max(5),
    v: number().strict().required().min(-4).max(5),
  })
    .noUnknown()
    .required();

/** A linear colour of luminance 1, as picked off the picture. */
export type PickedColor = [r: number, g: number, b: number];

const isColor = (value: unknown): value is PickedColor =>
  Array.isArray(value) &&
  value.length === 3 &&
  value.every((c) => typeof c === 'number' && c >= 0 && c <= 100);

const gelSchema = object({
  /** Which of the two below counts. */
  from: string().oneOf(['kelvin', 'picture']).required(),
  kelvin: ranged('kelvin'),
  color: mixed<PickedColor>((value): value is PickedColor => isColor(value)).required(),
})
  .noUnknown()
  .required();

const fixtureSchema = object({
  id: id(),
  kind: string().oneOf(['globe']).required(),
  name: name(),
  circuit: id(),
  at: platePoint(),
  foot: platePoint(),
  /** Radius of the glass as a fraction of the plate's width. */
  size: ranged('size'),
  gel: gelSchema,
  lumens: ranged('lumens'),
  heart: ranged('heart'),
  halo: ranged('halo'),
  /** What it throws against what it shows, stops. */
  spill: ranged('level'),
})
  .noUnknown()
  .required();

const circuitSchema = object({
  id: id(),
  name: name(),
  level: ranged('level'),
  lampLevel: ranged('level'),
  spillLevel: ranged('level'),
  muted: boolean().strict().required(),
  solo: boolean().strict().required(),
})
  .noUnknown()
  .required();

const unique = (items: { id: string }[] | undefined) =>
  new Set(items?.map((item) => item.id)).size === (items?.length ?? 0);

/** The document: one photo being turned to night, with all its decisions. */
export const sceneSchema = object({
  format: string().oneOf(['sundew-scene']).required(),
  version: number().oneOf([SCENE_VERSION]).required(),
  title: name(),
  plate: object({
    /** SHA-256 of the plate's file. */
    asset: string()
      .strict()
      .required()
      .matches(/^[0-9a-f]{64}$/, 'plate.asset is not a SHA-256'),
    width: number().strict().required().integer().min(1).max(40000),
    height: number().strict().required().integer().min(1).max(40000),
  })
    .noUnknown()
    .required(),
  night: object({
    /** Place on the hour line, 0 sunset to 1 deep night: sets the ambient light in lux. */
    hour: number().strict().required().min(0).max(1),
    exposure: ranged('exposure'),
    kelvin: ranged('kelvin'),
    tint: ranged('tint'),
    saturation: ranged('saturation'),
    /** How far what only ambient light shows is seen by rods alone: without colour, reds dark. */
    rods: ranged('rods'),
    /** How far what was bright by day is held down. */
    hold: ranged('hold'),
    haze: ranged('haze'),
  })
    .noUnknown()
    .required(),
  plan: object({
    horizon: object({ left: ranged('horizon'), right: ranged('horizon') })
      .noUnknown()
      .required(),
    eyeHeight: ranged('eyeHeight'),
    lens: ranged('lens'),
  })
    .noUnknown()
    .required(),
  fixtures: array(fixtureSchema)
    .required()
    .max(MOST_FIXTURES, `a scene holds at most ${MOST_FIXTURES} fixtures`)
    .test('unique', 'two fixtures have the same id', unique),
  circuits: array(circuitSchema).required().max(100).test('unique', 'two circuits have the same id', unique),
  desk: object({ ambient: ranged('level'), master: ranged('level') })
    .noUnknown()
    .required(),
})
  .noUnknown()
  .required()
  .test('circuits', 'a fixture is on a circuit that does not exist', (scene) => {
    const ids = new Set(scene.circuits?.map((circuit) => circuit.id));
    return (scene.fixtures ?? []).every((fixture) => ids.has(fixture.circuit));
  });

export type Scene = InferType<typeof sceneSchema>;
export type Night = Scene['night'];
export type GroundPlan = Scene['plan'];
export type Fixture = Scene['fixtures'][number];
export type Gel = Fixture['gel'];
export type Circuit = Scene['circuits'][number];
export type Desk = Scene['desk'];
