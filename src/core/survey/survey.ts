import { LUMINANCE } from '../color/luminance';
import { createGuidedFilter, type GuidedLine } from '../plane/guided-filter';
import type { RgbPlanes } from '../plane/plane';
import { horizonAt } from '../geometry/ground';
import { findFeet } from './find-feet';
import { findGround } from './find-ground';
import { findLeaves } from './find-leaves';
import { findSky } from './find-sky';
import { codeOf, hasWater, whatIsSaid, type Said, type SaidStroke } from './said';
import { columnsOfWalls, type ToldWall } from './told-walls';
import { plateFeatures } from './plate-features';

/**
 * What a small copy of the plate says about the lie of the land. It is made once at one size, so that preview and
 * output agree; coverages are local lines of the plate's lightness, so that their edges follow a plate of any size.
 */
export interface Survey {
  width: number;
  height: number;
  ground: GuidedLine;
  sky: GuidedLine;
  /** Water on the ground, if any is said. */
  water?: GuidedLine;
  /** Row on which a standing pixel's column stands, fraction of the height. */
  feet: Float32Array;
  /** Coverage by leaves, 0 to 1. */
  leaves: Float32Array;
  /** Median linear luminance of the land: what stands for a reflectance of MIDDLE_GREY. */
  medianLuminance: number;
}

/** Width of the small copy, pixels. */
export const SURVEY_WIDTH = 400;

/** Guided-filter windows as fractions of the width, and the variance of lightness that counts as flat. */
const REFINE = { radius: 0.008, epsilon: 0.0015 } as const;

/** Median linear luminance of what is no sky; undefined where all is. */
function medianOfLand({ r, g, b }: RgbPlanes, sky: Uint8Array): number | undefined {
  const land = new Float64Array(sky.length);
  let count = 0;
  for (let i = 0; i < sky.length; i++) {
    if (!sky[i]) land[count++] = LUMINANCE[0] * r[i] + LUMINANCE[1] * g[i] + LUMINANCE[2] * b[i];
  }
  return count > 0 ? land.subarray(0, count).sort()[count >> 1] : undefined;
}

/**
 * Surveys a small copy of a plate, some SURVEY_WIDTH pixels wide, under a horizon, with the walls that a person has drawn and what
 * strokes of the brush say.
 */
export function surveyPlate(
  plate: RgbPlanes,
  horizon: { left: number; right: number },
  walls: readonly ToldWall[] = [],
  strokes: readonly SaidStroke[] = [],
): Survey {
  const { width, height } = plate;
  const features = plateFeatures(plate);
  const said = whatIsSaid(features, strokes);
  const where = (as: Said) => said?.map((code) => (code === codeOf(as) ? 1 : 0));
  const leaves = findLeaves(features);
  const sky = findSky(features, horizon, said);
  const ground = findGround(features, horizon, sky, walls, said);
  const far = where('far');
  const water = hasWater(strokes) ? where('water') : undefined;
  const radius = Math.max(1, Math.round(REFINE.radius * width));
  const refineLifted = createGuidedFilter(features.lightness, width, height, radius, REFINE.epsilon);
  const refine = (coverage: Float32Array): GuidedLine => {
    const { slope, offset } = refineLifted(coverage);
    return { slope: slope.map((value) => value * features.lift), offset };
  };
  return {
    width,
    height,
    ground: refine(Float32Array.from(ground)),
    sky: refine(Float32Array.from(sky)),
    ...(water && { water: refine(Float32Array.from(water, (is, i) => is * ground[i])) }),
    feet: findFeet(features, ground, sky, {
      walls: columnsOfWalls(walls, horizon, width),
      far: far && { is: far, horizon: (u) => horizonAt(horizon, u) },
    }),
    leaves,
    medianLuminance: Math.max(1e-3, medianOfLand(plate, sky) ?? 0.18),
  };
}
