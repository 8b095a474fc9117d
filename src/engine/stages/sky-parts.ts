import { luminance } from '@/core/color/luminance';
import { decodeCodes } from '@/core/color/decode-codes';
import { linearOfCodes } from '@/core/color/srgb-codes';
import { createCamera } from '@/core/geometry/camera';
import { wholeRegion, type Region } from '@/core/plane/region';
import type { SkySettings } from '@/core/scene/schema';
import { cloudCover } from '@/core/sky/clouds';
import { clearSky } from '@/core/sky/dome-light';
import { celestialPole } from '@/core/sky/horizon-frame';
import { scatteredStars } from '@/core/sky/scattered-stars';
import { fillDome, meanOfDome } from '@/core/sky/sky-light';
import { meanLuminance } from '@/core/sky/sky-picture';
import type { SkyPicture } from '@/core/sky/sky-schema';
import { createStarColors } from '@/core/sky/star-color';
import { MOST_POINTS, POINT_STRIDE, starPoints } from '@/core/sky/star-points';
import { trueStars } from '@/core/sky/true-stars';
import { smallOf, type Spot } from '../graph/spot';
import { stage } from '../graph/stage';
import type { View } from '../graph/view';
import { previewSize } from '../sizes';
import { creaseRegion } from './relief';
import { tones } from './skyline';

/** The clear sky is smooth: it is found at every so many pixels of the small copy. */
const DOME_EVERY = 3;

/** The horizon and lens of a spot. */
export const eyeOf = (at: Spot) => {
  const { plan, plate } = at.scene;
  const { horizon, eyeHeight, lens } = plan;
  return createCamera({ horizon, eyeHeight, lens }, plate.width / plate.height);
};

export type DomePlanes = View<'skyR' | 'skyG' | 'skyB' | 'townR' | 'townG' | 'townB' | 'above' | 'mean'>;

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
    const above = meanOfDome(twilight);
    out.above.set(above);
    out.mean[0] = luminance(above) + luminance(meanOfDome(town));
  },
});

/** The copy on which clouds are made: a fine one for fine frames, of one size whatever the picture's. */
function cloudRegion(at: Spot): Region {
  const small = smallOf(at).region;
  return at.region.fullWidth <= small.width ? small : creaseRegion(at);
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
  kit: () => linearOfCodes(65535),
  run(out, _, { loaded, kit: decoded, prepared: { width, height }, kernels }) {
    (kernels?.decodeCodes ?? decodeCodes)(out, loaded as Uint16Array, decoded, 0, width * height);
    out.mean[0] = meanLuminance({ width, height, r: out.r, g: out.g, b: out.b });
  },
});

type PictureFile = Pick<SkyPicture, 'asset' | 'width' | 'height'>;

/** Of a picture of a sky, what names its file. */
export const fileOf = ({ asset, width, height }: SkyPicture): PictureFile => ({ asset, width, height });
