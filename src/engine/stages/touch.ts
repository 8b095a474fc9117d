import { layStrokes } from '@/core/matte/paint-coverage';
import { placeFixture } from '@/core/fixture/place-fixture';
import { cameraOf } from '@/core/picture/camera-of';
import type { Fixture, Touch } from '@/core/scene/schema';
import { liftLight } from '@/core/touch/lift-light';
import { weighByForm } from '@/core/touch/form-weight';
import type { Spot } from '../graph/spot';
import { stage, type Stage } from '../graph/stage';
import { matte } from './matte';
import { night } from './night';
import { landOf } from './land';
import { relief } from './relief';
import { behind } from './sky';
import { hasSky } from './skyline';
import type { LayerFacts } from './lamps';

/** The fixture that a touch's surfaces have to face. */
const fixtureOf = ({ scene }: Spot, { does, toward }: Touch): Fixture | undefined =>
  does === 'surface' ? scene.fixtures.find(({ id }) => id === toward) : undefined;

/** What holds a touch back wherever it is laid: its matte, the form of surfaces, and for surfaces the sky. */
export const holdback = stage({
  name: 'holdback',
  part: 'the touches',
  settings(at, touch: Touch) {
    const { at: place, foot, size } = fixtureOf(at, touch) ?? {};
    return {
      ...landOf(at),
      onLand: touch.does === 'surface',
      outside: touch.only?.outside ?? false,
      toward: place && foot && size !== undefined ? { at: place, foot, size } : undefined,
    };
  },
  inputs: (at, touch) => ({
    relief: touch.does === 'surface' ? relief(at) : undefined,
    only: touch.only && matte(at, touch.only.matte),
  }),
  planes: (pixels) => ({ share: pixels }),
  pace: 'quick',
  newest: ({ id }) => id,
  run(out, inputs, { prepared: settings }, { region, of, cut }) {
    const share = cut(out.share);
    share.fill(1);
    if (inputs.only) {
      const covered = cut(inputs.only.coverage);
      for (let i = 0; i < share.length; i++) share[i] = settings.outside ? 1 - covered[i] : covered[i];
    }
    if (!inputs.relief) return;
    const lie = of(inputs.relief);
    for (let i = 0; i < share.length; i++) share[i] *= lie.land[i];
    const camera = cameraOf(settings);
    if (settings.toward) weighByForm(share, lie, camera, region, placeFixture(camera, settings.toward).place);
  },
});

/** Strokes that are laid in one go: a stroke more costs no more than so many. */
const IN_ONE_GO = 32;

/** The first strokes of a touch. */
interface FirstStrokes {
  touch: Touch;
  count: number;
}

/** How many of the first strokes are laid before the last go. */
const before = ({ count }: FirstStrokes) => IN_ONE_GO * Math.floor(Math.max(0, count - 1) / IN_ONE_GO);

/** How far the first strokes of a touch cover, 0 to 1: the last of them laid on what those before came to. */
export const stroked: Stage<FirstStrokes, unknown, 'coverage'> = stage({
  name: 'stroked',
  part: 'the touches',
  settings: (_, first: FirstStrokes) => first.touch.strokes.slice(before(first), first.count),
  inputs: (at, first) => ({ under: underOf(at, first) }),
  planes: (pixels) => ({ coverage: pixels }),
  pace: 'heavy',
  newest: (first) => `${first.touch.id} ${before(first)}`,
  run(out, { under }, { prepared: strokes, kernels }, { region, cut }) {
    const coverage = cut(out.coverage);
    if (under) coverage.set(cut(under.coverage));
    else coverage.fill(0);
    layStrokes(coverage, new Float32Array(coverage.length), strokes, region, kernels?.layDabs);
  },
});

const underOf = (at: Spot, first: FirstStrokes) =>
  before(first) > 0 ? stroked(at, { touch: first.touch, count: before(first) }) : undefined;

/** How far a touch is laid on, 0 to 1. */
export const touched = stage({
  name: 'touched',
  part: 'the touches',
  settings: () => undefined,
  inputs: (at, touch: Touch) => ({
    hold: holdback(at, touch),
    stroked: stroked(at, { touch, count: touch.strokes.length }),
  }),
  planes: (pixels) => ({ coverage: pixels }),
  pace: 'quick',
  newest: ({ id }) => id,
  run(out, inputs, _, { cut }) {
    const [coverage, all, share] = [cut(out.coverage), cut(inputs.stroked.coverage), cut(inputs.hold.share)];
    for (let i = 0; i < coverage.length; i++) coverage[i] = all[i] * share[i];
  },
});

/** What touches of a layer give: spill on surfaces, and in the air light that is added, as lamps themselves are. */
export const touches = stage({
  name: 'touches',
  part: 'the touches',
  settings: (_, laid: Touch[]) => laid.map(({ does, amount }) => ({ does, amount })),
  inputs: (at, laid) => ({ laid: laid.map((touch) => touched(at, touch)) }),
  prepare: ({ settings, region: { height } }) => ({
    laid: settings,
    sourceRows: { from: 0, to: settings.some(({ does }) => does === 'air') ? height : 0 },
  }),
  facts: ({ sourceRows }): LayerFacts => ({ sourceRows }),
  planes: (pixels, { sourceRows }) => ({
    ...{ spill: pixels, air: 0, shine: 0 },
    source: sourceRows.to > 0 ? pixels : 0,
  }),
  pace: 'quick',
  newest: (laid) => laid.map(({ id }) => id).join(' '),
  run(out, inputs, { prepared: { laid } }, { cut }) {
    const spill = cut(out.spill).fill(0);
    const source = out.source.length > 0 ? cut(out.source).fill(0) : undefined;
    laid.forEach(({ does, amount }, k) => {
      const [to, coverage] = [does === 'air' ? source! : spill, cut(inputs.laid[k].coverage)];
      for (let i = 0; i < to.length; i++) to[i] += amount * coverage[i];
    });
  },
});

/** The touches that lift or hold the night's own light. */
const lifting = ({ scene }: Spot): Touch[] =>
  scene.touches.filter(({ does, strokes }) => does === 'lift' && strokes.length > 0);

/** The night's own light as hands lifted and held it. */
export const lifted = stage({
  name: 'lifted',
  part: 'the touches',
  settings: (at) => lifting(at).map(({ amount }) => amount),
  inputs: (at) => ({ night: plainNight(at), laid: lifting(at).map((touch) => touched(at, touch)) }),
  planes: (pixels) => ({ r: pixels, g: pixels, b: pixels }),
  pace: 'quick',
  newest: () => '',
  run(out, inputs, { prepared: stops }, { of, cut }) {
    const laid = inputs.laid.map(({ coverage }, k) => ({ coverage: cut(coverage), stops: stops[k] }));
    liftLight(of(out), of(inputs.night), laid);
  },
});

/** The night's own light with what stands behind the skyline. */
export const plainNight = (at: Spot) => (hasSky(at) ? behind(at) : night(at));

/** The night's own light as the sum takes it. */
export const nightLight = (at: Spot): ReturnType<typeof night> =>
  lifting(at).length > 0 ? lifted(at) : plainNight(at);
