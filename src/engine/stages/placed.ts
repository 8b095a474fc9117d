import { layAll } from '@/core/placed/lay-over';
import { layPlaced } from '@/core/placed/lay-placed';
import { matchPicture } from '@/core/placed/match-picture';
import type { Placed } from '@/core/placed/placed-schema';
import { addGrain } from '@/core/lens/grain';
import { standsAhead } from '@/core/plan/surfaces';
import { cameraOf } from '@/core/picture/camera-of';
import type { Scene } from '@/core/scene/schema';
import { type Spot } from '../graph/spot';
import { stage } from '../graph/stage';
import type { Want } from '../graph/stage-spec';
import type { View } from '../graph/view';
import { cardAt, cutoutAt, endsIn, ends, eyeIn, ownSpot } from './cutout';
import { deviates } from './deviates';
import { matte } from './matte';
import { plate } from './plate';
import { skyline } from './skyline';

/** Mattes of what stands nearer than a placed picture, and of what a person says is in front of it. */
function nearerMattes(at: Spot, placed: Placed): string[] {
  const camera = cameraOf(at.scene);
  const [, ahead] = cardAt(at, placed).foot;
  const { standees, decks } = at.scene.plan;
  const nearer = standees.filter((standee) => standsAhead(camera, standee, decks) < ahead);
  return [...nearer.map((standee) => standee.matte), ...(placed.behind ? [placed.behind] : [])];
}

/** Of a placed picture, what says how it lies and looks. */
const lookOf = (at: Spot, placed: Placed) => {
  const { match, exposure, black, warmth, grain, alpha } = placed;
  return {
    eye: eyeIn(at.scene),
    ...{ card: cardAt(at, placed), byHand: { match, exposure, black, warmth } },
    ...{ grain, cutOut: alpha !== undefined },
  };
};

/** A placed picture as it is seen, by day: its light and its coverage. */
export const laid = stage({
  name: 'laid',
  part: 'the placed pictures',
  settings: lookOf,
  inputs: (at, placed: Placed) => ({
    cutout: cutoutAt(at, placed),
    plate: ends(at, { land: true }),
    own: ends(ownSpot(at, placed), { land: false, alpha: placed.alpha }),
    hiding: nearerMattes(at, placed).map((id) => matte(at, id)),
    deviates: placed.grain > 0 ? deviates(at) : undefined,
  }),
  prepare({ settings: { eye, card, byHand, grain, cutOut }, inputs }) {
    const matching = matchPicture(endsIn(inputs.plate), endsIn(inputs.own), cutOut, byHand);
    return { camera: cameraOf(eye), card, matching, grain };
  },
  planes: (pixels) => ({ r: pixels, g: pixels, b: pixels, coverage: pixels }),
  pace: 'heavy',
  newest: ({ id }) => id,
  run(out, inputs, { prepared: { camera, card, matching, grain }, kernels }, { region, of, cut }) {
    const mine = of(out);
    layPlaced(mine, inputs.cutout, camera, card, matching, region);
    if (inputs.deviates) {
      const settings = { iso: grain, size: 1, color: 0.3, seed: 1 };
      (kernels?.addGrain ?? addGrain)(mine, settings, inputs.deviates.table, region);
    }
    for (const { coverage } of inputs.hiding) {
      const hides = cut(coverage);
      for (let i = 0; i < hides.length; i++) mine.coverage[i] *= 1 - hides[i];
    }
  },
});

/** A scene's placed pictures, the farthest first. */
const farthestFirst = (scene: Scene, memo: Spot['memo']): Placed[] => {
  const ahead = (placed: Placed) => cardAt({ scene, memo }, placed).foot[1];
  return [...scene.placed].sort((a, b) => ahead(b) - ahead(a));
};

/** The placed pictures at a spot, the farthest first. */
export const laidAt = (at: Spot) => at.memo(farthestFirst, at.scene).map((placed) => laid(at, placed));

/** Coverage of what stands by its id: of a placed picture, or else of a matte. */
export function standing(at: Spot, id: string): Want<View<'coverage'>> {
  const placed = at.scene.placed.find((one) => one.id === id);
  return placed ? laid(at, placed) : matte(at, id);
}

/** The plate with placed pictures over it. */
export const peopled = stage({
  name: 'peopled',
  part: 'the placed pictures',
  settings: () => undefined,
  inputs: (at) => ({ plate: plate(at), laid: laidAt(at) }),
  planes: (pixels) => ({ r: pixels, g: pixels, b: pixels }),
  pace: 'quick',
  newest: () => '',
  run(out, inputs, _, { of }) {
    layAll(of(out), of(inputs.plate), inputs.laid.map(of));
  },
});

/** The plate as it is seen by day, with what was placed in it. */
export const seenPlate = (at: Spot): Want<View<'r' | 'g' | 'b'>> =>
  at.scene.placed.length > 0 ? peopled(at) : plate(at);

/** Coverage by land with what was placed before the sky. */
export const land = stage({
  name: 'land',
  part: 'the placed pictures',
  settings: () => undefined,
  inputs: (at) => ({ skyline: skyline(at), laid: laidAt(at) }),
  planes: (pixels) => ({ land: pixels }),
  pace: 'quick',
  newest: () => '',
  run(out, inputs, _, { cut }) {
    const all = cut(out.land);
    all.set(cut(inputs.skyline.land));
    for (const { coverage } of inputs.laid) {
      const own = cut(coverage);
      for (let i = 0; i < all.length; i++) all[i] = own[i] + (1 - own[i]) * all[i];
    }
  },
});

/** Coverage by land, where another sky than the plate's stands behind it. */
export const landCover = (at: Spot): Want<View<'land'>> =>
  at.scene.placed.length > 0 ? land(at) : skyline(at);
