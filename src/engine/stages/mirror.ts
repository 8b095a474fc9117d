import { addMirrors } from '@/core/mirror/add-mirrors';
import { fillPyramid, pyramidLength, pyramidLevels } from '@/core/mirror/light-pyramid';
import { mirrorImage as seenInMirrors } from '@/core/mirror/mirror-image';
import { mirrorMap as followMirrors } from '@/core/mirror/mirror-map';
import { cameraOf } from '@/core/picture/camera-of';
import { mixPicture } from '@/core/picture/mix-picture';
import { shines } from '@/core/plan/surfaces';
import { smallOf, type Spot } from '../graph/spot';
import { stage, type Stage } from '../graph/stage';
import { landOf, type Land } from './land';
import { matte } from './matte';
import { relief } from './relief';
import { landing, sum, sumInputs, sumSettings, sumWeights } from './sum';

const small = (at: Spot) => smallOf(at).region;

/** Whether anything of a scene shines and shall mirror. */
const mirrors = (at: Spot): boolean => at.scene.plan.mirrors > 0 && shines(landOf(at).plan);

/** Where any of some mattes covers; undefined without any. */
function unitedCoverage(mattes: readonly { coverage: Float32Array }[]): Float32Array | undefined {
  if (mattes.length === 0) return undefined;
  const [first, ...others] = mattes;
  const united = first.coverage.slice();
  for (const { coverage } of others)
    for (let i = 0; i < united.length; i++) united[i] = Math.max(united[i], coverage[i]);
  return united;
}

/** What each pixel of the small copy sees in itself as a mirror. */
export const mirrorMap = stage({
  name: 'mirror map',
  part: 'the mirrors',
  region: small,
  settings: landOf,
  inputs: (at) => ({
    relief: relief(at),
    glosses: landOf(at).plan.glosses.map(({ matte: id }) => matte(at, id)),
  }),
  planes: (pixels) => ({
    ...{ u: pixels, v: pixels, behind: pixels },
    ...{ weight: pixels, ripples: pixels, facing: pixels },
  }),
  pace: 'heavy',
  whole: true,
  newest: () => '',
  run(out, inputs, { prepared: land }) {
    const exact = unitedCoverage(inputs.glosses);
    followMirrors(out, inputs.relief, cameraOf(land), out.width, out.height, exact);
  },
});

/** What mirrors see: the sum of all light on the small copy, without lamps themselves and what they shine. */
export const mirrorLight = stage({
  name: 'mirror light',
  part: 'the mirrors',
  region: small,
  settings: sumSettings,
  inputs: sumInputs,
  prepare: ({ settings, inputs }) => sumWeights(settings, inputs.survey),
  planes: (pixels) => ({ r: pixels, g: pixels, b: pixels }),
  pace: 'quick',
  newest: () => '',
  run(out, inputs, { prepared: weights, kernels }, { rows }) {
    const { distance, land } = inputs.relief;
    const none = { from: 0, to: 0 };
    const layers = inputs.layers.map((layer) => ({
      spill: landing(layer).spill,
      source: land,
      sourceRows: none,
    }));
    const base = { plate: inputs.plate, night: inputs.night, distance, land };
    if (kernels) kernels.mixRows(out, base, layers, weights, rows);
    else mixPicture(out, base, layers, weights, rows);
  },
});

/** What is seen in mirrors: what is lit, and `again` what it mirrors itself. */
interface Seen {
  again: boolean;
}

/** What mirrors see, and ever smaller copies of it. */
export const mirrorPyramid = stage({
  name: 'mirror pyramid',
  part: 'the mirrors',
  region: small,
  settings: () => undefined,
  inputs: (at, { again }: Seen) => ({ light: again ? mirrored(at, { within: true }) : mirrorLight(at) }),
  prepare: ({ region: { width, height } }) => pyramidLength(width, height),
  planes: (_, length) => ({ levels: length }),
  pace: 'quick',
  whole: true,
  newest: ({ again }) => String(again),
  run(out, { light }, { kernels }) {
    const fill = kernels?.fillPyramid ?? fillPyramid;
    fill(pyramidLevels(out.levels, out.width, out.height), light);
  },
});

/** What mirrors show on the small copy. */
export const mirrorImage = stage({
  name: 'mirror image',
  part: 'the mirrors',
  region: small,
  settings: landOf,
  inputs: (at, seen: Seen) => ({ map: mirrorMap(at), pyramid: mirrorPyramid(at, seen), relief: relief(at) }),
  planes: (pixels) => ({ known: 4 * pixels }),
  pace: 'quick',
  newest: ({ again }) => String(again),
  run(out, inputs, { prepared: land, kernels }, { of, cut, first, count }) {
    const { u, v, behind, weight, facing } = of(inputs.map);
    const seen = { u, v, behind, weight, facing, alpha: cut(inputs.relief.alpha) };
    const known = out.known.subarray(4 * first, 4 * (first + count));
    const { levels, width, height } = inputs.pyramid;
    const show = kernels?.mirrorImage ?? seenInMirrors;
    show(known, pyramidLevels(levels, width, height), seen, cameraOf(land).focal);
  },
});

/** Whether anything shines that is seen in what shines: level ground and water are not. */
const seesItself = ({ plan: { walls, standees, decks, glosses } }: Land): boolean =>
  [walls, standees, decks.filter(({ pitch }) => pitch), glosses].flat().some(({ sheen }) => sheen > 0);

/** Light with what surfaces mirror: the sum of all, or `within` mirrors what they see, on the small copy. */
export const mirrored: Stage<{ within: boolean }, unknown, 'r' | 'g' | 'b'> = stage({
  name: 'mirrored',
  part: 'the mirrors',
  settings: (at) => ({ land: landOf(at), strength: at.scene.plan.mirrors }),
  inputs: (at, { within }) => ({
    ...{ light: within ? mirrorLight(at) : sum(at), relief: relief(at) },
    ...{ image: mirrorImage(at, { again: !within && seesItself(landOf(at)) }), map: mirrorMap(at) },
  }),
  planes: (pixels) => ({ r: pixels, g: pixels, b: pixels }),
  pace: 'quick',
  passing: true,
  pointwise: true,
  run(out, inputs, { prepared: { land, strength }, kernels }, { region, of }) {
    const [made, light] = [of(out), of(inputs.light)];
    for (const c of ['r', 'g', 'b'] as const) made[c].set(light[c]);
    const { weight, ripples } = inputs.map;
    const { width, height, known } = inputs.image;
    const image = { width, height, data: known, weight, ripples };
    const add = kernels?.addMirrors ?? addMirrors;
    add(made, of(inputs.relief), image, cameraOf(land), region, strength);
  },
});

/** The light of all surfaces and lamps. */
export const surfaceLight = (at: Spot) => (mirrors(at) ? mirrored(at, { within: false }) : sum(at));
