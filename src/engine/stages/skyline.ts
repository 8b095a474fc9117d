import { lineCoverage } from '@/core/survey/line-coverage';
import { SKY_TONES, skyTones, type SkyTones } from '@/core/sky/sky-tones';
import { skyline as findSkyline } from '@/core/sky/skyline';
import { landCells } from '@/core/sky/land-cells';
import { smallOf, type Spot } from '../graph/spot';
import { stage } from '../graph/stage';
import { plate } from './plate';
import { survey, surveyIn } from './survey';

/** Whether another sky than the plate's own stands behind the skyline. */
export const hasSky = ({ scene }: Pick<Spot, 'scene'>): boolean => scene.sky.from !== 'plate';

/** Every plane of the small copy's tones. */
const PLANES = [...SKY_TONES, 'broad', 'feet'] as const;

/** Both sides of the skyline, carried on beyond it, on the small copy. */
export const tones = stage({
  name: 'sky tones',
  part: 'the sky',
  region: (at) => smallOf(at).region,
  settings: () => undefined,
  inputs: (at) => ({ plate: plate(at), survey: survey(at) }),
  planes: (pixels) =>
    Object.fromEntries(PLANES.map((name) => [name, pixels])) as Record<keyof SkyTones, number>,
  pace: 'heavy',
  whole: true,
  lasting: true,
  run(out, inputs) {
    const { sky, feet, leaves } = surveyIn(inputs.survey);
    const found = skyTones(inputs.plate, lineCoverage(inputs.plate, sky), feet, leaves);
    for (const name of PLANES) out[name].set(found[name]);
  },
});

/** The land without the day's sky: its coverage, and its own colour in mixed pixels. */
export const skyline = stage({
  name: 'skyline',
  part: 'the sky',
  settings: () => undefined,
  inputs: (at) => ({ plate: plate(at), survey: survey(at), tones: tones(at) }),
  planes: (pixels) => ({ r: pixels, g: pixels, b: pixels, land: pixels }),
  pace: 'heavy',
  prepare: ({ inputs: { tones: said } }) => landCells(said),
  run(out, inputs, { prepared: cells, kernels }, { region, of }) {
    const told = { survey: surveyIn(inputs.survey), tones: inputs.tones };
    findSkyline(of(out), of(inputs.plate), told, cells, region, kernels?.freeLand);
  },
});

/** The plate, freed of the day's sky where another stands behind it. */
export const freed = (at: Spot) => (hasSky(at) ? skyline(at) : plate(at));
