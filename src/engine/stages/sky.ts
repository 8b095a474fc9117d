import { kindOf } from '@/core/fixture/kinds';
import { cameraOf } from '@/core/picture/camera-of';
import type { Layer } from '@/core/picture/layers';
import { skyWeights } from '@/core/picture/sky-weights';
import { wholeRegion, type Region } from '@/core/plane/region';
import { luminance } from '@/core/color/luminance';
import { srgb } from '@/core/color/srgb';
import type { SkySettings } from '@/core/scene/schema';
import { meanLuminance } from '@/core/sky/sky-picture';
import type { SkyPicture } from '@/core/sky/sky-schema';
import { behindSkyline } from '@/core/sky/behind-skyline';
import { cloudCover } from '@/core/sky/clouds';
import { clearSky } from '@/core/sky/dome-light';
import { scatteredStars } from '@/core/sky/scattered-stars';
import { fillDome, meanOfDome, skyLight } from '@/core/sky/sky-light';
import { MOST_POINTS, POINT_STRIDE, starPoints } from '@/core/sky/star-points';
import { createStarColors } from '@/core/sky/star-color';
import { celestialPole, trueStars } from '@/core/sky/true-sky';
import { smallOf, type Spot } from '../graph/spot';
import { stage } from '../graph/stage';
import type { View } from '../graph/view';
import { creaseSize, previewSize, type Size } from '../sizes';
import { direct } from './direct';
import { litLayers } from './grip';
import { night } from './night';
import { plate } from './plate';
import { landOf } from './relief';
import { skyline, tones } from './skyline';

/** The clear sky is smooth: it is found at every so many pixels of the small copy. */
const DOME_EVERY = 3;

/** The horizon and lens of a spot. */
const eyeOf = (at: Spot) => {
  const { plan, plate: shape } = landOf(at);
  const { horizon, eyeHeight, lens } = plan;
  return cameraOf({ plan: { horizon, eyeHeight, lens } as typeof plan, plate: shape });
};

type DomePlanes = View<'skyR' | 'skyG' | 'skyB' | 'townR' | 'townG' | 'townB' | 'above' | 'mean'>;

/** A picture of a sky is read at about this width, pixels. */
const PICTURE_WIDTH = 1600;

/** The clear sky of the hour: twilight, and the town's glow. */
export const dome = stage({
  name: 'dome',
  part: 'the sky',
  region(at) {
    const { width, height } = smallOf(at).region;
    return wholeRegion(Math.ceil(width / DOME_EVERY), Math.ceil(height / DOME_EVERY));
  },
  settings(at) {
    const { sun, afterglow, town, townKelvin } = at.scene.sky;
    return { eye: eyeOf(at), said: { hour: at.scene.night.hour, sun, afterglow, town, townKelvin } };
  },
  inputs: () => ({}),
  planes: (pixels) => ({
    ...{ skyR: pixels, skyG: pixels, skyB: pixels, townR: pixels, townG: pixels, townB: pixels },
    ...{ above: 3, mean: 1 },
  }),
  pace: 'quick',
  whole: true,
  newest: () => '',
  run(out, _, { prepared: { eye, said } }) {
    const { twilight, town } = clearSky(said);
    const { width, height, region } = out;
    fillDome({ width, height, r: out.skyR, g: out.skyG, b: out.skyB }, eye, twilight, region);
    fillDome({ width, height, r: out.townR, g: out.townG, b: out.townB }, eye, town, region);
    out.above.set(meanOfDome(twilight));
    out.mean[0] = luminance(meanOfDome(twilight)) + luminance(meanOfDome(town));
  },
});

/** The copy on which clouds are made: a fine one for fine frames, of one size whatever the picture's. */
function cloudRegion(at: Spot): Region {
  const small = smallOf(at).region;
  if (at.region.fullWidth <= small.width) return small;
  const { width, height } = creaseSize(at.scene.plate);
  return wholeRegion(width, height);
}

/** Clouds made here. */
export const clouds = stage({
  name: 'clouds',
  part: 'the sky',
  region: cloudRegion,
  settings(at) {
    const { under: _, ...shape } = at.scene.sky.clouds;
    return { eye: eyeOf(at), shape };
  },
  inputs: (at) => ({ tones: tones(smallOf(at)) }),
  planes: (pixels) => ({ cover: pixels }),
  pace: 'heavy',
  newest: () => '',
  run(out, inputs, { prepared: { eye, shape } }, { region, cut }) {
    const { width, height, withinLand } = inputs.tones;
    cloudCover(cut(out.cover), eye, region, shape, { width, height, data: withinLand });
  },
});

/** Points of light that stars draw. */
export const points = stage({
  name: 'points',
  part: 'the sky',
  region: (at) => smallOf(at).region,
  settings: (at) => ({ eye: eyeOf(at), stars: at.scene.sky.stars, when: whenOf(at.scene.sky) }),
  inputs: () => ({}),
  planes: () => ({ points: POINT_STRIDE * MOST_POINTS, count: 1 }),
  pace: 'heavy',
  whole: true,
  newest: () => '',
  kit: createStarColors,
  run(out, _, { prepared: { eye, stars, when }, kit: colorOf }) {
    const { from, seed, faintest, size, colors, trail, fall } = stars;
    const all = from === 'true' ? trueStars(when, faintest) : scatteredStars(seed, faintest);
    const look = { size, colors, trail, fall: { ...fall.at, turn: fall.turn, soft: fall.soft } };
    out.count[0] = starPoints(out.points, eye, all, { ...look, pole: celestialPole(when) }, colorOf);
  },
});

/** Stars that are scattered know of the sky only how it turns. */
const whenOf = ({ stars, when }: SkySettings): SkySettings['when'] =>
  stars.from === 'true' ? when : { ...when, moment: '', longitude: 0 };

/** A picture of a sky, as scene-linear light; of one size whatever the picture's. */
export const skyPicture = stage({
  name: 'sky picture',
  part: 'the sky',
  settings: (_, { asset, width, height }: PictureFile) => ({
    asset,
    size: previewSize({ width, height }, PICTURE_WIDTH),
  }),
  region: (at) => smallOf(at).region,
  inputs: () => ({}),
  async load(assets, { asset, size }, _, signal) {
    return { data: await assets.codes(asset, wholeRegion(size.width, size.height), signal) };
  },
  prepare: ({ settings: { size } }) => size,
  facts: (size) => size,
  planes(_, { width, height }) {
    const pixels = width * height;
    return { r: pixels, g: pixels, b: pixels, mean: 1 };
  },
  pace: 'heavy',
  whole: true,
  kit: () => Float32Array.from({ length: 65536 }, (_, code) => srgb.decode(code / 65535)),
  run(out, _, { loaded, kit: decoded, prepared: { width, height } }) {
    const codes = loaded!;
    for (let i = 0, from = 0; i < width * height; i++, from += 3) {
      out.r[i] = decoded[codes[from]];
      out.g[i] = decoded[codes[from + 1]];
      out.b[i] = decoded[codes[from + 2]];
    }
    out.mean[0] = meanLuminance({ width, height, r: out.r, g: out.g, b: out.b });
  },
});

type PictureFile = Pick<SkyPicture, 'asset' | 'width' | 'height'>;

/** Of a picture of a sky, what names its file. */
const fileOf = ({ asset, width, height }: SkyPicture): PictureFile => ({ asset, width, height });

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
  run(out, inputs, { prepared: { own, laid } }, { region, of, cut }) {
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
    skyLight(of(out), of(inputs.plate), cut(inputs.skyline.land), parts, region);
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
    const { night: own, desk, circuits, sky: said, moon } = at.scene;
    const { under } = said.clouds;
    const lit = lampsBelow(at).map((layer) => ({ ...layer, fixtures: [] }));
    return {
      eye: eyeOf(at),
      starSize: said.stars.size,
      lit,
      // Of the document, what the weights are made of.
      of: { night: own, desk, circuits: lit.length > 0 ? circuits : [], moon, moonLook: said.moon, under },
    };
  },
  inputs: (at) => ({
    ...{ night: night(at), skyline: skyline(at), sky: sky(at), points: points(at) },
    fluxes: lampsBelow(at).map((layer) => direct(smallOf(at), layer)),
  }),
  prepare({ settings: { eye, starSize, lit, of: part }, inputs }) {
    const layers = lit.map((layer, k) => ({ ...layer, flux: inputs.fluxes[k].facts.flux }));
    const said = { clouds: { under: part.under }, moon: part.moonLook } as SkySettings;
    return { eye, starSize, weights: skyWeights({ ...part, sky: said }, layers) };
  },
  planes: (pixels) => ({ r: pixels, g: pixels, b: pixels }),
  pace: 'quick',
  newest: () => '',
  run(out, inputs, { prepared: { eye, starSize, weights } }, { region, of, cut }) {
    const { points: stars, sky: light } = inputs;
    behindSkyline(
      of(out),
      {
        ...{ night: of(inputs.night), land: cut(inputs.skyline.land), sky: of(light) },
        ...{ points: stars.points, count: stars.count[0], starSize },
      },
      weights,
      eye,
      region,
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
