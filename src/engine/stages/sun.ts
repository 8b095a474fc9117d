import { liftShadow, shadowGains } from '@/core/day/lift-shadow';
import { findWallShade, liftWalls } from '@/core/day/wall-shade';
import { createCamera } from '@/core/geometry/camera';
import { wallPieces } from '@/core/plan/wall-pieces';
import { piecesSeen } from '@/core/relief/pieces-seen';
import type { Scene } from '@/core/scene/schema';
import { lineCoverage } from '@/core/survey/line-coverage';
import { smallOf, type Spot } from '../graph/spot';
import { stage } from '../graph/stage';
import { matte } from './matte';
import { plate } from './plate';
import { relief } from './relief';
import { freed } from './skyline';
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
export const unshaded = (at: Spot) => (isShaded(at) ? litWalls(at) : litGround(at));

/** The same for what is found in it, which needs no skyline where nothing is lifted. */
export const shown = (at: Spot) => (isShaded(at) || at.scene.plan.sunShadow?.lift ? unshaded(at) : plate(at));
