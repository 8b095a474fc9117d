import { hasWater } from '@/core/survey/said';
import { surveyPlate, type Survey } from '@/core/survey/survey';
import { toldWalls } from '@/core/survey/told-walls';
import type { GroundPlan } from '@/core/scene/schema';
import { smallOf } from '../graph/spot';
import { stage } from '../graph/stage';
import type { View } from '../graph/view';
import { plate } from './plate';

type SurveyView = View<
  | 'groundSlope'
  | 'groundOffset'
  | 'skySlope'
  | 'skyOffset'
  | 'waterSlope'
  | 'waterOffset'
  | 'feet'
  | 'leaves'
  | 'medianLuminance'
>;

/** What a plan tells the survey. */
const toldOf = ({ horizon, walls, eyeHeight, strokes }: GroundPlan) => ({
  ...{ horizon, strokes },
  walls: toldWalls(walls, eyeHeight),
});

/** What the small copy of the plate says: ground, sky, feet, and the median of the land. */
export const survey = stage({
  name: 'survey',
  part: 'the photo',
  region: (at) => smallOf(at).region,
  settings: ({ scene, surveyAt, memo }) => memo(toldOf, surveyAt ?? scene.plan),
  inputs: (at) => ({ plate: plate(at) }),
  planes(pixels, { strokes }) {
    const water = hasWater(strokes) ? pixels : 0;
    return {
      ...{ groundSlope: pixels, groundOffset: pixels, skySlope: pixels, skyOffset: pixels },
      ...{ waterSlope: water, waterOffset: water, feet: pixels },
      ...{ leaves: pixels, medianLuminance: 1 },
    };
  },
  pace: 'heavy',
  whole: true,
  lasting: true,
  run(out, inputs, { prepared: { horizon, walls, strokes } }) {
    const told = surveyPlate(inputs.plate, horizon, walls, strokes);
    const { ground, sky, water, feet, leaves, medianLuminance } = told;
    out.groundSlope.set(ground.slope);
    out.groundOffset.set(ground.offset);
    out.skySlope.set(sky.slope);
    out.skyOffset.set(sky.offset);
    out.waterSlope.set(water?.slope ?? []);
    out.waterOffset.set(water?.offset ?? []);
    out.feet.set(feet);
    out.leaves.set(leaves);
    out.medianLuminance[0] = medianLuminance;
  },
});

/** A survey as the core takes it. */
export const surveyIn = (view: SurveyView): Survey => ({
  width: view.width,
  height: view.height,
  ground: { slope: view.groundSlope, offset: view.groundOffset },
  sky: { slope: view.skySlope, offset: view.skyOffset },
  ...(view.waterSlope.length > 0 && { water: { slope: view.waterSlope, offset: view.waterOffset } }),
  feet: view.feet,
  leaves: view.leaves,
  medianLuminance: view.medianLuminance[0],
});
