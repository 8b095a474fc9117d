import { evenOut, levelling as findLevelling, shadingOf } from '@/core/day/even-out';
import { liftShadow, shadowGains } from '@/core/day/lift-shadow';
import { findWallShade, liftWalls } from '@/core/day/wall-shade';
import { createCamera } from '@/core/geometry/camera';
import { wallPieces } from '@/core/plan/wall-pieces';
import { piecesSeen } from '@/core/relief/pieces-seen';
import { layAll } from '@/core/placed/lay-over';
import { lineCoverage } from '@/core/survey/line-coverage';
import type { Scene } from '@/core/scene/schema';
import { smallOf, type Spot } from '../graph/spot';
import { stage } from '../graph/stage';
import type { Want } from '../graph/stage-spec';
import type { View } from '../graph/view';
import { matte } from './matte';
import { laidAt } from './placed';
import { plate } from './plate';
import { relief } from './relief';
import { freed, hasSky, skyline } from './skyline';
import { survey, surveyIn } from './survey';

/** How much brighter it is beside the sun's shadow than within. */
export const gains = stage({
  name: 'gains',
  part: 'evening out the day',
  region: (at) => smallOf(at).region,
  settings: () => undefined,
  inputs: (at) => ({
    survey: survey(at),
    plate: plate(at),
    coverage: matte(at, at.scene.plan.sunShadow!.matte),
  }),
  planes: (pixels) => ({
    r: pixels,
    g: pixels,
    b: pixels,
    lit: pixels,
    rim: pixels,
    slope: pixels,
    offset: pixels,
  }),
  pace: 'heavy',
  whole: true,
  lasting: true,
  newest: () => '',
  run(out, inputs) {
    const ground = lineCoverage(inputs.plate, surveyIn(inputs.survey).ground);
    shadowGains(out, inputs.plate, inputs.coverage.coverage, ground);
  },
});

/** The plate with the sun's shadow lifted. */
export const lift = stage({
  name: 'lift',
  part: 'evening out the day',
  settings: ({ scene }) => scene.plan.sunShadow!.lift,
  inputs: (at) => ({
    plate: freed(at),
    gains: gains(at),
    coverage: matte(at, at.scene.plan.sunShadow!.matte),
  }),
  planes: (pixels) => ({ r: pixels, g: pixels, b: pixels }),
  pace: 'heavy',
  newest: () => '',
  run(out, inputs, { prepared: amount }, { region, of, cut }) {
    liftShadow(of(out), of(inputs.plate), cut(inputs.coverage.coverage), inputs.gains, region, amount);
  },
});

const litGround = (at: Spot) => (at.scene.plan.sunShadow?.lift ? lift(at) : freed(at));

/** The walls that the sun does not reach, and the eye that sees them. */
const shadedOf = ({ plan: { horizon, eyeHeight, lens, walls }, plate: { width, height } }: Scene) => ({
  eye: { horizon, eyeHeight, lens },
  aspect: width / height,
  walls: walls
    .filter(({ dayShade = 0 }) => dayShade > 0)
    .map(({ foot, height, dayShade }) => ({ foot, height, dayShade })),
});

/** What of the picture lies on walls that the sun does not reach. */
export const wallShade = stage({
  name: 'wall shade',
  part: 'evening out the day',
  region: (at) => smallOf(at).region,
  settings: ({ scene, memo }) => memo(shadedOf, scene),
  inputs: (at) => ({ plate: plate(at), relief: relief(at) }),
  planes: (pixels) => ({ slope: pixels, offset: pixels, stops: pixels, level: pixels }),
  pace: 'heavy',
  whole: true,
  lasting: true,
  newest: () => '',
  run(out, inputs, { prepared: { eye, aspect, walls } }) {
    const camera = createCamera(eye, aspect);
    const shaded = walls.flatMap(({ dayShade: stops = 0, ...wall }) =>
      wallPieces(camera, [wall]).map((piece) => ({ piece, stops })),
    );
    const pieces = shaded.map(({ piece }) => piece);
    const seen = piecesSeen(inputs.plate, inputs.relief, camera, pieces);
    const stops = shaded.map((one) => one.stops);
    findWallShade(out, inputs.plate, seen, stops);
  },
});

/** The plate with walls that the sun does not reach as bright as those that it shines on. */
export const litWalls = stage({
  name: 'lit walls',
  part: 'evening out the day',
  settings: () => undefined,
  inputs: (at) => ({ plate: litGround(at), shade: wallShade(at) }),
  planes: (pixels) => ({ r: pixels, g: pixels, b: pixels }),
  pace: 'heavy',
  newest: () => '',
  run(out, inputs, _, { region, of }) {
    liftWalls(of(out), of(inputs.plate), inputs.shade, region);
  },
});

const isShaded = ({ scene }: Spot) => scene.plan.walls.some(({ dayShade = 0 }) => dayShade > 0);

/** The plate without the sun's own shadow, on ground and walls: what else shades the day is evened out of that. */
const unshaded = (at: Spot) => (isShaded(at) ? litWalls(at) : litGround(at));

/** The same for what is found in it, which needs no skyline where nothing is lifted. */
const shown = (at: Spot) => (isShaded(at) || at.scene.plan.sunShadow?.lift ? unshaded(at) : plate(at));

/** The day's broad shading, as lines over the small copy. */
export const shading = stage({
  name: 'shading',
  part: 'evening out the day',
  region: (at) => smallOf(at).region,
  settings: () => undefined,
  inputs: (at) => ({ plate: shown(at) }),
  planes: (pixels) => ({ slope: pixels, offset: pixels }),
  pace: 'heavy',
  whole: true,
  lasting: true,
  run(out, inputs) {
    const { line } = shadingOf(inputs.plate);
    out.slope.set(line.slope);
    out.offset.set(line.offset);
  },
});

/** How far each place would move to be level. */
export const levelling = stage({
  name: 'levelling',
  part: 'evening out the day',
  settings: () => undefined,
  inputs: (at) => ({ plate: shown(at), survey: survey(at), shading: shading(at) }),
  planes: (pixels) => ({ shift: pixels }),
  pace: 'heavy',
  newest: () => '',
  run(out, inputs, { kernels }, { region, of, cut }) {
    const { sky, medianLuminance } = surveyIn(inputs.survey);
    const { width, height, slope, offset } = inputs.shading;
    const line = { width, height, line: { slope, offset } };
    const find = kernels?.levelling ?? findLevelling;
    find(cut(out.shift), of(inputs.plate), line, sky, region, medianLuminance);
  },
});

/** The plate with the day's shading taken out by a share. */
export const even = stage({
  name: 'even',
  part: 'evening out the day',
  settings: ({ scene }) => scene.night.evenOut,
  inputs: (at) => ({ plate: unshaded(at), levelling: levelling(at) }),
  planes: (pixels) => ({ r: pixels, g: pixels, b: pixels }),
  pace: 'quick',
  newest: () => '',
  run(out, inputs, { prepared: amount, kernels }, { of, cut }) {
    (kernels?.evenOut ?? evenOut)(of(out), of(inputs.plate), cut(inputs.levelling.shift), amount);
  },
});

const evenedPhoto = (at: Spot) => (at.scene.night.evenOut === 0 ? unshaded(at) : even(at));

/** The evened plate with placed pictures over it. */
export const peopledDay = stage({
  name: 'peopled day',
  part: 'the placed pictures',
  settings: () => undefined,
  inputs: (at) => ({
    plate: evenedPhoto(at),
    laid: laidAt(at),
    skyline: hasSky(at) ? skyline(at) : undefined,
  }),
  planes: (pixels) => ({ r: pixels, g: pixels, b: pixels }),
  pace: 'quick',
  newest: () => '',
  run(out, inputs, _, { of, cut }) {
    const land = inputs.skyline && Float32Array.from(cut(inputs.skyline.land));
    layAll(of(out), of(inputs.plate), inputs.laid.map(of), land);
  },
});

/**
 * The plate as lamps and ambient light find it: without the day's shading and the sun's own shadow, and with what was placed in it.
 */
export const evened = (at: Spot): Want<View<'r' | 'g' | 'b'>> =>
  at.scene.placed.length > 0 ? peopledDay(at) : evenedPhoto(at);
