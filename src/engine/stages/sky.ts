import { kindOf } from '@/core/fixture/kinds';
import type { Layer } from '@/core/picture/layers';
import { skyWeights } from '@/core/picture/sky-weights';
import type { SkySettings } from '@/core/scene/schema';
import { behindSkyline } from '@/core/sky/behind-skyline';
import { createMoonGround } from '@/core/sky/moon-disc';
import { skyLight } from '@/core/sky/sky-light';
import type { SkyPicture } from '@/core/sky/sky-schema';
import type { Spot } from '../graph/spot';
import { stage } from '../graph/stage';
import type { View } from '../graph/view';
import type { Size } from '../sizes';
import { flux } from './direct';
import { litLayers } from './grip';
import { LENS_DOWN } from './lens-down';
import { resting } from './lamps';
import { night } from './night';
import { landCover } from './placed';
import { plate } from './plate';
import { clouds, dome, eyeOf, fileOf, points, skyPicture, type DomePlanes } from './sky-parts';
import { skyline, tones } from './skyline';

/** The sky behind the skyline, but for moon and stars, cd/m2. */
export const sky = stage({
  name: 'sky',
  part: 'the sky',
  settings({ scene, memo }) {
    const { own, picture } = scene.sky;
    return { own, laid: picture && memo(placingOf, picture) };
  },
  inputs: (at) => ({
    ...{ plate: plate(at), tones: tones(at), skyline: skyline(at), dome: dome(at) },
    picture: at.scene.sky.picture ? skyPicture(at, at.memo(fileOf, at.scene.sky.picture)) : undefined,
    clouds: at.scene.sky.clouds.cover > 0 ? clouds(at) : undefined,
  }),
  prepare: ({ settings, inputs }) => ({ ...settings, cloudy: inputs.clouds !== undefined }),
  planes: (pixels, { cloudy }) => ({ r: pixels, g: pixels, b: pixels, cloud: cloudy ? pixels : 0 }),
  pace: 'heavy',
  newest: () => '',
  run(out, inputs, { prepared: { own, laid }, kernels }, { region, of, cut }) {
    const { tones: said, dome: clear, clouds: over, picture } = inputs;
    const parts = {
      ...domesIn(clear),
      above: [clear.above[0], clear.above[1], clear.above[2]] as const,
      broad: { width: said.width, height: said.height, data: said.broad },
      own,
      mean: clear.mean[0],
      laid: picture && laid ? { ...laid, ...pictureIn(picture) } : undefined,
      cloud: over && { width: over.width, height: over.height, data: over.cover },
    };
    const add = (!parts.laid && kernels?.skyLight) || skyLight;
    add(of(out), of(inputs.plate), cut(inputs.skyline.land), parts, region);
  },
});

/** Of a picture of a sky, how it is laid. */
const placingOf = ({ at, across, turn, share, exposure, fit }: SkyPicture) => ({
  place: { at, across, turn },
  ...{ share, exposure, fit },
});

const pictureIn = ({ r, g, b, mean, facts }: View<'r' | 'g' | 'b' | 'mean', Size>) => ({
  picture: { ...facts, r, g, b },
  mean: mean[0],
});

const domesIn = ({ width, height, skyR, skyG, skyB, townR, townG, townB }: DomePlanes) => ({
  twilight: { width, height, r: skyR, g: skyG, b: skyB },
  town: { width, height, r: townR, g: townG, b: townB },
});

/** The night with its sky behind the skyline, as faders weigh it. */
export const behind = stage({
  name: 'behind',
  part: 'the sky',
  settings(at) {
    const { night, desk, circuits, sky: said, moon } = at.scene;
    const { under } = said.clouds;
    const lit = lampsBelow(at).map((layer) => ({ ...layer, fixtures: [] }));
    // Lamps and their faders count only where clouds are lit by them.
    // The lens adds to what is behind the skyline later.
    const own = { ...desk, ...LENS_DOWN };
    const lamps = lit.length > 0 ? { circuits, desk: own } : { circuits: [], desk: { ...own, master: 0 } };
    return {
      eye: eyeOf(at),
      starSize: said.stars.size,
      lit,
      of: { night, ...lamps, moon, moonLook: said.moon, under },
    };
  },
  inputs: (at) => ({
    ...{ night: night(at), skyline: landCover(at), sky: sky(at), points: points(at) },
    // Clouds are lit by a lamp that is dragged as they were when it was taken up.
    fluxes: lampsBelow(at).map(({ fixtures, moon }) =>
      flux({ ...at, moving: undefined }, { fixtures: resting(at, fixtures), moon }),
    ),
  }),
  prepare({ settings: { eye, starSize, lit, of: part }, inputs }) {
    const layers = lit.map((layer, k) => ({ ...layer, flux: inputs.fluxes[k].lumens[0] }));
    const said = { clouds: { under: part.under }, moon: part.moonLook } as SkySettings;
    return { eye, starSize, weights: skyWeights({ ...part, sky: said }, layers) };
  },
  planes: (pixels) => ({ r: pixels, g: pixels, b: pixels }),
  pace: 'quick',
  newest: () => '',
  kit: createMoonGround,
  run(out, inputs, { prepared: { eye, starSize, weights }, kit: ground, kernels }, { region, of, cut }) {
    const { points: stars, sky: light } = inputs;
    behindSkyline(
      of(out),
      {
        ...{ night: of(inputs.night), land: cut(inputs.skyline.land), sky: of(light) },
        ...{ points: stars.points, count: stars.count[0], starSize },
      },
      weights,
      ground,
      eye,
      region,
      kernels?.joinSky,
    );
  },
});

/** The layers that light clouds from below, where there are any. */
function lampsBelow(at: Spot): Layer[] {
  if (at.scene.sky.clouds.cover === 0) return [];
  return litLayers(at).flatMap((layer) => {
    const below = layer.fixtures.filter((fixture) => !kindOf(fixture).inSky);
    if (below.length === 0) return [];
    return [below.length < layer.fixtures.length ? { ...layer, fixtures: below } : layer];
  });
}
