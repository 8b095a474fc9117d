import { pointOf } from '@/core/fixture/shapes';
import { visibleSources } from '@/core/fixture/visible-source';
import { kindOf } from '@/core/fixture/kinds';
import { faderGain, isUp } from '@/core/fields/fader-gain';
import { createSpikes } from '@/core/lens/add-spikes';
import { findGlints, glintAt } from '@/core/lens/find-glints';
import { GLINT_STRIDE, MOST_GLINTS, readGlint, writeGlints, type Glint } from '@/core/lens/glint';
import { governedGlints, tinted } from '@/core/lens/governed-glints';
import { addGrain } from '@/core/lens/grain';
import { spikesOf } from '@/core/lens/spikes';
import { spreadLight, veilShare } from '@/core/lens/veil';
import { cameraOf } from '@/core/picture/camera-of';
import { pictureWeights } from '@/core/picture/weights';
import type { Plane } from '@/core/plane/plane';
import type { Fixture } from '@/core/scene/schema';
import { smallOf, type Spot } from '../graph/spot';
import { stage } from '../graph/stage';
import { lampSettings, type Lamps } from './direct';
import { litLayers, weighing } from './grip';
import { matte } from './matte';
import { seenPlate } from './placed';
import { castPlan } from './shades';
import { deviates } from './deviates';
import { LENS_DOWN } from './lens-down';
import { sceneLight } from './drift';
import { lastMade } from './last-made';
import { survey } from './survey';
import { plainNight } from './touch';
import { lightBefore, veil } from './veil';

/** Share of a source's light that goes into its spikes at 0 stops. */
const SPIKES = 1e-3;

/** Floats of a fixture's point: place, and light, cd/m2 times squared widths. */
const POINT = 3;

/** The points that fixtures of a layer are for a lens, with the light that they have before the film holds it. */
export const lampPoints = stage({
  name: 'lamp points',
  part: 'the light of the fixtures',
  region: (at) => smallOf(at).region,
  settings: (at, lamps: Lamps) => lampSettings(at, lamps),
  inputs: (at, { fixtures }) => ({
    plate: seenPlate(at),
    behind: fixtures.map((fixture) => (fixture.behind === undefined ? undefined : matte(at, fixture.behind))),
  }),
  planes: () => ({ points: POINT * MOST_GLINTS, count: 1 }),
  pace: 'heavy',
  whole: true,
  run(out, inputs, { prepared: settings }) {
    const camera = cameraOf(settings);
    const { walls } = castPlan(camera, settings.plan);
    const points = settings.fixtures.flatMap((fixture, k) => {
      const hidden = inputs.behind[k];
      const seen = hidden ? { ...hidden, data: hidden.coverage } : undefined;
      return pointsOf(fixture, visibleSources(camera, walls, fixture, inputs.plate), seen);
    });
    const some = points.slice(0, MOST_GLINTS);
    some.forEach((point, k) => out.points.set(point, POINT * k));
    out.count[0] = some.length;
  },
});

function pointsOf(fixture: Fixture, sources: ReturnType<typeof visibleSources>, hidden?: Plane): number[][] {
  return sources.flatMap((source) => {
    const point = pointOf(source);
    if (!point) return [];
    const { at, light } = point;
    const seen = hidden ? 1 - meanAround(hidden, at.u, at.v, fixture.size) : 1;
    return [[at.u, at.v, seen * light * 2 ** kindOf(fixture).heldStops]];
  });
}

/** Mean of a plane over a square around a place; beyond the picture it is 0. */
function meanAround({ width, height, data }: Plane, u: number, v: number, reach: number): number {
  const half = Math.max(0.5, reach * width);
  const [x, y] = [u * width - 0.5, v * height - 0.5];
  let [all, count] = [0, 0];
  for (let j = Math.ceil(y - half); j <= y + half; j++)
    for (let i = Math.ceil(x - half); i <= x + half; i++) {
      if (i >= 0 && j >= 0 && i < width && j < height) all += data[j * width + i];
      count++;
    }
  return count > 0 ? all / count : 0;
}

/** What burns in the picture by itself: the same whatever lamps do. */
export const burning = stage({
  name: 'burning',
  part: 'the lens',
  region: (at) => smallOf(at).region,
  settings: () => undefined,
  inputs: (at) => ({ night: plainNight(at) }),
  planes: () => ({ glints: GLINT_STRIDE * MOST_GLINTS, count: 1 }),
  pace: 'quick',
  whole: true,
  newest: () => '',
  run(out, { night }) {
    out.count[0] = writeGlints(out.glints, findGlints(night));
  },
});

/** All sources that get spikes, with their light as the faders of circuits have it. */
export const glints = stage({
  name: 'glints',
  part: 'the lens',
  region: (at) => smallOf(at).region,
  settings({ scene, ...at }) {
    const { tint, gel, points, within } = scene.lens;
    return {
      lens: { tint, gel, points, within },
      // The faders of the lens itself only weigh what is found.
      ...{ night: scene.night, desk: { ...scene.desk, ...LENS_DOWN }, circuits: scene.circuits },
      lit: weighing(litLayers({ scene, ...at })),
    };
  },
  inputs: (at) => ({
    ...{ burning: burning(at), night: plainNight(at), survey: survey(at) },
    lamps: litLayers(at).map((layer) => lampPoints(at, { fixtures: layer.fixtures })),
    sum: at.scene.lens.points.some(({ stops }) => isUp(stops)) ? sceneLight(at) : undefined,
    within: at.scene.lens.within === undefined ? undefined : matte(at, at.scene.lens.within),
  }),
  prepare: ({ settings: { lens, lit, ...scene }, inputs }) => ({
    lens,
    colors: pictureWeights(scene, lit, inputs.survey.medianLuminance[0]).layers.map(({ source }) => source),
  }),
  planes: () => ({ glints: GLINT_STRIDE * MOST_GLINTS, count: 1 }),
  pace: 'quick',
  whole: true,
  newest: () => '',
  run(out, inputs, { prepared: { lens, colors } }) {
    const { width, height } = out;
    const fixtures = inputs.lamps.flatMap(({ points, count }, k) =>
      Array.from({ length: count[0] }, (_, i): Glint => {
        const [u, v, light] = points.subarray(POINT * i, POINT * (i + 1));
        const [r, g, b] = colors[k];
        return { u, v, r: light * r, g: light * g, b: light * b, from: 'fixture' };
      }),
    );
    const { glints: table, count } = inputs.burning;
    const found = [...fixtures, ...Array.from({ length: count[0] }, (_, k) => readGlint(table, k))];
    const all = governedGlints(found, lens.points, width / height, ({ at }) =>
      glintAt(inputs.sum ?? inputs.night, at.u, at.v),
    );
    const cover = inputs.within && { width, height, data: inputs.within.coverage };
    const some = all.map((glint) => {
      const by = cover ? meanAround(cover, glint.u, glint.v, 0) : 1;
      const { r, g, b, ...rest } = tinted(glint, lens);
      return { ...rest, r: by * r, g: by * g, b: by * b };
    });
    out.count[0] = writeGlints(out.glints, some);
  },
});

/** Whether the lens adds anything to the picture's light. */
const glares = ({ scene: { desk } }: Spot) => isUp(desk.veil) || isUp(desk.spikes);

/** The sum of all light as the lens gives it on: some of it spread, and spikes on its sources. */
export const glare = stage({
  name: 'glare',
  part: 'the lens',
  settings: ({ scene: { lens, desk } }) => ({
    look: spikesOf(lens),
    spread: veilShare(faderGain(desk.veil)),
    share: SPIKES * faderGain(desk.spikes),
  }),
  inputs: (at) => ({
    light: lightBefore(at),
    veil: isUp(at.scene.desk.veil) ? veil(at) : undefined,
    glints: isUp(at.scene.desk.spikes) ? glints(at) : undefined,
  }),
  planes: (pixels) => ({ r: pixels, g: pixels, b: pixels }),
  pace: 'quick',
  passing: true,
  pointwise: true,
  kit: () => lastMade(createSpikes),
  run(out, inputs, { prepared: { look, spread, share }, kit, kernels }, { region, of }) {
    const made = of(out);
    if (kernels && inputs.veil) kernels.spreadLight(made, of(inputs.light), inputs.veil, spread, region);
    else spreadLight(made, of(inputs.light), inputs.veil, spread, region);
    const { glints: sources } = inputs;
    if (sources)
      kit(look, region.fullWidth)(made, sources.glints, sources.count[0], share, region, kernels?.addSpikes);
  },
});

/** What the film is exposed to, before grain. */
const throughLens = (at: Spot) => (glares(at) ? glare(at) : sceneLight(at));

/** Light with the grain of a night exposure. */
export const grain = stage({
  name: 'grain',
  part: 'the lens',
  settings: ({ scene }) => scene.lens.grain,
  inputs: (at) => ({ light: throughLens(at), deviates: deviates(at) }),
  planes: (pixels) => ({ r: pixels, g: pixels, b: pixels }),
  pace: 'quick',
  passing: true,
  pointwise: true,
  run(out, inputs, { prepared: settings, kernels }, { region, of }) {
    const [made, light] = [of(out), of(inputs.light)];
    for (const c of ['r', 'g', 'b'] as const) made[c].set(light[c]);
    (kernels?.addGrain ?? addGrain)(made, settings, inputs.deviates.table, region);
  },
});

/** What the film is exposed to. */
export const exposed = (at: Spot) => (at.scene.lens.grain.iso > 0 ? grain(at) : throughLens(at));
