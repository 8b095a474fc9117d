import { regionKey, type Region } from '@/core/plane/region';
import type { Fixture, Matte, Moon, Scene } from '@/core/scene/schema';
import { surroundOf } from '@/core/picture/surround-of';
import type { Pass } from '@/core/matte/pass';
import { digest } from './digest';
import type { FrameRequest } from './frame-request';

/*
 * A node's key names exactly what its planes depend on: what it is in a word, and a digest of the rest. However deep nodes stand on
 * one another, a key stays short.
 */

const key = (what: string, ...on: unknown[]): string => `${what} ${digest(on.join(' '))}`;

/** Remembers what a function made of an object that never changes in place. */
function remembered<Value extends object, Made>(make: (value: Value) => Made): (value: Value) => Made {
  const known = new WeakMap<Value, Made>();
  return (value) => {
    const found = known.get(value);
    if (found !== undefined) return found;
    const made = make(value);
    known.set(value, made);
    return made;
  };
}

export const plateKey = (asset: string, region: Region) => `plate ${asset} ${regionKey(region)}`;

/** The horizon by which ground and sky are told apart. */
export const surveyHorizon = ({ scene, surveyAt }: FrameRequest) => surveyAt ?? scene.plan.horizon;

export function surveyKey(request: FrameRequest): string {
  const { left, right } = surveyHorizon(request);
  return `survey ${request.scene.plate.asset} ${left} ${right}`;
}

export const shadingKey = ({ scene }: FrameRequest) => `shading ${scene.plate.asset}`;

/** The plate with the day's shading taken out; at rest the plate itself. */
export function evenKey(request: FrameRequest): string {
  const { plate, night, plan } = request.scene;
  const own = plateKey(plate.asset, request.region);
  const even = night.evenOut === 0 ? own : `even ${night.evenOut} ${surveyKey(request)} ${own}`;
  if (!plan.sunShadow?.lift) return even;
  return key(
    'lift',
    plan.sunShadow.lift,
    matteKey(request, matteOf(request.scene, plan.sunShadow.matte)),
    even,
  );
}

/** A pass by its digest. Painted ones are long: each is written out once. */
const passText = remembered((pass: Pass) => digest(JSON.stringify(pass)));

/** Digests of a scene's mattes by id, each told once however many others are made of it. */
const mattesText = remembered((_mattes: readonly Matte[]) => new Map<string, string>());

const passesText = (scene: Scene, { passes }: Matte): string =>
  digest(
    passes
      .map((pass) =>
        pass.kind === 'matte'
          ? `${pass.join} (${matteText(scene, matteOf(scene, pass.matte))})`
          : passText(pass),
      )
      .join(),
  );

function matteText(scene: Scene, matte: Matte): string {
  // One that is not the scene's own, though of the same name, is told for itself.
  const known = scene.mattes.includes(matte) ? mattesText(scene.mattes) : new Map<string, string>();
  const own = known.get(matte.id);
  if (own !== undefined) return own;
  const { refine, grow, feather, invert } = matte;
  const text = digest([passesText(scene, matte), refine, grow, feather, invert].join(' '));
  known.set(matte.id, text);
  return text;
}

/** What a matte's passes cover depends on them, and on the plate where they look at it. */
export const passesKey = (request: FrameRequest, matte: Matte): string =>
  key('passes', passesText(request.scene, matte), seenIn(request));

/** A finished matte: what its passes cover, refined, grown, feathered and inverted. */
export const matteKey = (request: FrameRequest, matte: Matte): string =>
  key('matte', matteText(request.scene, matte), seenIn(request));

/** What a matte looks at. */
const seenIn = (request: FrameRequest) =>
  `${surveyKey(request)} ${plateKey(request.scene.plate.asset, request.region)}`;

/** The matte of an id; schemas see to it that it is there. */
export const matteOf = (scene: Scene, id: string): Matte => scene.mattes.find((matte) => matte.id === id)!;

/** What shapes the factors on ambient light; undefined where there are none. */
export function openKey(request: FrameRequest): string | undefined {
  const { scene, region } = request;
  const surround = surroundOf(scene);
  const places = scene.places.filter(({ stops }) => stops !== 0);
  if (!surround && places.length === 0) return undefined;
  const shapes = places.map(
    ({ matte, outside, stops }) => `${matteKey(request, matteOf(scene, matte))} ${outside} ${stops}`,
  );
  return key('open', JSON.stringify(surround), regionKey(region), shapes.join(';'));
}

/** All of a night but what belongs to the air. */
export function nightKey(request: FrameRequest): string {
  const { scene } = request;
  const ofAir = { haze: 0, hazeGlow: 0, hazeKelvin: 0 };
  const night = JSON.stringify({ ...scene.night, ...ofAir, surround: 0 });
  return key('night', night, openKey(request), evenKey(request));
}

export const reliefKey = remembered((request: FrameRequest): string => {
  const { scene, region } = request;
  const { standees, walls, ground } = scene.plan;
  const used = [
    ...standees.map(({ matte }) => matte),
    ...walls.flatMap(({ until }) => until ?? []),
    ...(ground.wet ? [ground.wet] : []),
  ];
  const mattes = used.map((id) => matteKey(request, matteOf(scene, id)));
  const plan = JSON.stringify({ ...scene.plan, sunShadow: undefined });
  return key('relief', surveyKey(request), plan, mattes.join(';'), regionKey(region));
});

/** Depends on all that shapes the light, and on nothing that only weighs it. */
export function layerKey(request: FrameRequest, fixtures: Fixture[]): string {
  const shapes = fixtures.map((fixture) => {
    const { kind, at, foot, path, size, lumens, heart, halo, spill } = fixture;
    const { shown, bars, barGlow, interior, standOff, aim, curtains, depth, seed, count, sag, breaks, dead } =
      fixture;
    const form = [
      shown,
      depth,
      aim.u,
      aim.v,
      curtains,
      seed,
      count,
      sag,
      `${breaks.join(' ')}/${dead.join(' ')}`,
    ];
    const own = [kind, at.u, at.v, foot.u, foot.v, size, lumens, heart, halo, spill, bars, barGlow];
    const way = path.flatMap(({ u, v }) => [u, v]);
    return `${[...own, interior, standOff, ...form, ...way].join()} ${holdKey(request, fixture)}`;
  });
  // While a lamp is dragged, what surfaces give on is its light from where it was taken up.
  const { moving } = request;
  const from = moving && fixtures.some(({ id }) => id === moving.id) ? JSON.stringify(moving) : '';
  return key('layer', from, reliefKey(request), shapes.join(';'));
}

/** What holds a fixture's light back; empty where nothing does. */
export function holdKey(request: FrameRequest, { behind, only }: Fixture): string {
  const matte = (id: string) => matteKey(request, matteOf(request.scene, id));
  return `${behind ? matte(behind) : ''}${only ? `only ${only.outside} ${matte(only.matte)}` : ''}`;
}

/** The moon's light depends on where it stands, and on what it falls on. */
export const moonKey = (request: FrameRequest, { azimuth, elevation }: Moon): string =>
  key('moon', azimuth, elevation, reliefKey(request));
