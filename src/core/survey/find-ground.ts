import { fillHoles } from '../plane/fill-holes';
import { geodesicReach, type StepCost } from '../plane/geodesic-reach';
import { edgeHeight } from './edge-height';
import { horizonAt } from '../geometry/ground';
import {
  commonTones,
  distanceFromTones,
  distanceToTone,
  groundTones,
  toneAt,
  tonesWhere,
  type Tone,
} from './ground-tones';
import { plainFeet, type PlainFoot } from './plain-feet';
import { beforeFoot, coverOfWalls, type ToldWall } from './told-walls';
import type { PlateFeatures } from './plate-features';
import { codeOf, type SaidPlane } from './said';

/**
 * Costs of the two floods, in Oklab. Crossing an edge costs its height. Leaving the ground's tones costs the ground's flood, entering them
 * costs the other. Where ground is told it begins the dearer the less it looks like ground: something may stand there. Where it plainly
 * begins it is cheap, and what looks as it does there is ground too. What stands flows down more easily than sideways, ground the other
 * way. Ties lean toward the ground.
 */
const FLOW = {
  unlike: 0.35,
  like: 0.35,
  alike: 0.05,
  step: 0.0006,
  turn: 0.0012,
  edgeSeed: 0.1,
  told: 1.2,
  plain: 0.1,
  lean: 0.05,
  largestHole: 0.0012,
} as const;

/** Share of what lies before a told wall from which a tone is the ground's there: what stands there shows less of one. */
const COMMON = 0.3;

const [GROUND, WATER] = [codeOf('ground'), codeOf('water')];
const [UPRIGHT, FAR] = [codeOf('upright'), codeOf('far')];
const lies = (code: number) => code === GROUND || code === WATER;
const stands = (code: number) => code === UPRIGHT || code === FAR;

/**
 * How far each pixel is from the ground's tones, and what a step of either flood costs. `foot` is carried along with the ground's flood:
 * one more than the number of the plain foot from which it came, or 0.
 */
function flowCosts(
  features: PlateFeatures,
  said: SaidPlane | undefined,
  feet: readonly PlainFoot[],
  before: readonly Tone[],
): { unlike: Float32Array; foot: Float32Array; standing: StepCost; lying: StepCost } {
  const edge = edgeHeight(features);
  const tones = [...groundTones(features), ...before];
  if (said) tones.push(...tonesWhere(features, (i) => lies(said[i])));
  const unlike = distanceFromTones(features, tones);
  const foot = new Float32Array(unlike.length);
  feet.forEach(({ at }, k) => (foot[at] = 1 + k));
  const unlikeFrom = (from: number, to: number) =>
    foot[from] > 0
      ? Math.min(unlike[to], distanceToTone(feet[foot[from] - 1].tone, toneAt(features, to)))
      : unlike[to];
  return {
    ...{ unlike, foot },
    standing: (from, to, dx) =>
      FLOW.step +
      edge(from, to) +
      FLOW.like * Math.max(0, FLOW.alike - unlike[to]) +
      (dx === 0 ? 0 : FLOW.turn),
    lying: (from, to, dx) =>
      FLOW.step +
      edge(from, to) +
      FLOW.unlike * Math.max(0, unlikeFrom(from, to) - FLOW.alike) +
      (dx === 0 ? FLOW.turn : 0),
  };
}

/**
 * Divides what lies below the horizon into ground and standing things. Everything above the horizon stands, the
 * plate's lower edge is ground, and each pixel in between belongs to the side from which a path reaches it across
 * the smaller edges (geodesic segmentation, Bai and Sapiro 2009). What a person said of walls is believed: they stand, and under their foot
 * ground begins, unless it looks like something else there; what is common there is a look of the ground. What is said by the brush is so. Returns 1 for ground, width * height.
 */
export function findGround(
  features: PlateFeatures,
  horizon: { left: number; right: number },
  sky: Uint8Array,
  walls: readonly ToldWall[] = [],
  said?: SaidPlane,
): Uint8Array {
  const { width, height } = features;
  const size = width * height;
  const horizonRow = (x: number) => horizonAt(horizon, (x + 0.5) / width) * height;
  const told = coverOfWalls(walls, horizon, width, height);
  const feet = plainFeet(features, walls, horizon, told.under);
  const before = walls.flatMap((wall) => {
    const strip = beforeFoot(wall, horizon, width, height).filter((i) => !told.wall[i]);
    return commonTones(features, strip, COMMON);
  });
  const { unlike, foot, standing, lying } = flowCosts(features, said, feet, before);
  const toStanding = new Float32Array(size).fill(Infinity);
  const toGround = new Float32Array(size).fill(Infinity);
  const above = new Uint8Array(size);
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const i = y * width + x;
      if (y + 0.5 > horizonRow(x)) continue;
      above[i] = 1;
      if (!sky[i]) toStanding[i] = 0;
    }
  }
  for (let i = 0; i < size; i++) {
    if (told.wall[i] && !sky[i]) [above[i], toStanding[i]] = [1, 0];
    if (told.under[i]) toGround[i] = FLOW.told * Math.max(0, unlike[i] - FLOW.alike);
  }
  for (const { at } of feet) toGround[at] = Math.min(toGround[at], FLOW.plain);
  // Sky may go on below a horizon of which nothing is said.
  const noGround = above.map((is, i) => is | sky[i]);
  for (let x = 0; x < width; x++) {
    const i = (height - 1) * width + x;
    if (!noGround[i]) toGround[i] = FLOW.edgeSeed * (2 * Math.abs((x + 0.5) / width - 0.5)) ** 4;
  }
  const noStanding = sky.slice();
  said?.forEach((code, i) => {
    if (lies(code) && !above[i]) [toGround[i], toStanding[i], noStanding[i]] = [0, Infinity, 1];
    if (stands(code) && !sky[i]) [toStanding[i], toGround[i], noGround[i]] = [0, Infinity, 1];
  });
  geodesicReach(toStanding, noStanding, width, height, standing);
  geodesicReach(toGround, noGround, width, height, lying, foot);
  const ground = Uint8Array.from(toGround, (cost, i) => (cost < toStanding[i] + FLOW.lean ? 1 : 0));
  fillHoles(ground, width, height, FLOW.largestHole * size);
  said?.forEach((code, i) => {
    if (stands(code)) ground[i] = 0;
  });
  return ground;
}
