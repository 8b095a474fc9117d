import type { Pass, PassKind } from '@/core/matte/pass';
import { MOST_PASSES } from '@/core/matte/matte-schema';
import type { Matte, Place, Scene } from '@/core/scene/schema';

/** How a new matte of one pass is called. */
export const PASS_NAMES: Record<PassKind, string> = {
  sky: 'Sky',
  shadow: 'Sun’s shadow',
  edge: 'Edge brush',
  area: 'Like place',
  outline: 'Outline',
  tone: 'Tones',
  colour: 'Colour',
  ramp: 'Ramp',
  paint: 'Paint',
  matte: 'Matte',
};

/** Kinds of passes that need nothing but themselves. */
export type OwnKind = Exclude<PassKind, 'matte'>;
export const OWN_KINDS = (Object.keys(PASS_NAMES) as PassKind[]).filter((kind) => kind !== 'matte');

/** A pass of what another matte covers. */
export const mattePass = (matte: string): Pass => ({
  id: crypto.randomUUID(),
  join: 'add',
  kind: 'matte',
  matte,
});

/** A pass as it begins, in the middle of the picture. */
export function newPass(kind: OwnKind): Pass {
  const base = { id: crypto.randomUUID(), join: 'add' } as const;
  switch (kind) {
    case 'sky':
    case 'shadow':
      return { ...base, kind };
    case 'area':
      return { ...base, kind, at: { u: 0.5, v: 0.5 }, tolerance: 0.1, connected: true };
    case 'outline':
      return { ...base, kind, points: [] };
    case 'tone':
      return { ...base, kind, low: 0.6, high: 1, soft: 0.1 };
    case 'colour':
      return { ...base, kind, color: [1, 1, 1], reach: 0.04, soft: 0.04 };
    case 'ramp':
      return {
        ...base,
        kind,
        shape: 'straight',
        from: { u: 0.5, v: 0.3 },
        to: { u: 0.5, v: 0.7 },
        breadth: 1,
        soft: 1,
      };
    case 'edge':
    case 'paint':
      return { ...base, kind, strokes: [] };
  }
}

/** What the edge brush finds is led along the plate's edges; more exact passes are taken as they are. */
const REFINED: Partial<Record<PassKind, number>> = { edge: 0.006 };

/** A matte of one new pass, with a name that no other has. */
export function newMatte(scene: Scene, kind: OwnKind): Matte {
  const taken = new Set(scene.mattes.map(({ name }) => name));
  const stem = PASS_NAMES[kind];
  let name = stem;
  for (let n = 2; taken.has(name); n++) name = `${stem} ${n}`;
  return {
    id: crypto.randomUUID(),
    name,
    passes: [newPass(kind)],
    refine: REFINED[kind] ?? 0,
    grow: 0,
    feather: 0,
    invert: false,
  };
}

/** Stops by which the night's light is moved inside or outside a matte. */
export function placeStops({ places }: Scene, matte: string, outside: boolean): number {
  return places.find((place) => place.matte === matte && place.outside === outside)?.stops ?? 0;
}

/** The places of a scene with one of them set; at no stops it is taken away. */
export function withPlace({ places }: Scene, place: Place): Place[] {
  const rest = places.filter(({ matte, outside }) => matte !== place.matte || outside !== place.outside);
  return place.stops === 0 ? rest : [...rest, place];
}

/** How far the sun's shadow is lifted unless someone says otherwise. */
export const SUN_LIFT = 0.9;

/** A matte of the sun's shadow as it is found, without what stands in it and without decks, which are dark by themselves. */
export function sunShadowMatte(scene: Scene): Matte {
  const matte = newMatte(scene, 'shadow');
  const { standees, decks } = scene.plan;
  const cut = { join: 'subtract' } as const;
  const id = () => crypto.randomUUID();
  return {
    ...matte,
    passes: [
      ...matte.passes,
      ...standees.map((standee): Pass => ({ ...cut, id: id(), kind: 'matte', matte: standee.matte })),
      ...decks.map(({ outline }): Pass => ({ ...cut, id: id(), kind: 'outline', points: [...outline] })),
    ].slice(0, MOST_PASSES),
  };
}
