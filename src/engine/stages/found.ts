import { findArea } from '@/core/matte/find-area';
import { findCastShadow } from '@/core/matte/find-cast-shadow';
import { findColor } from '@/core/matte/find-color';
import { followEdges } from '@/core/matte/follow-edges';
import type { FoundPass } from '@/core/matte/pass';
import { lineCoverage } from '@/core/survey/line-coverage';
import type { Survey } from '@/core/survey/survey';
import type { GuidedLine } from '@/core/plane/guided-filter';
import type { RgbPlanes } from '@/core/plane/plane';
import { smallOf } from '../graph/spot';
import { stage } from '../graph/stage';
import { plate } from './plate';
import { survey, surveyIn } from './survey';

function find(small: RgbPlanes, pass: FoundPass, seen?: Survey): GuidedLine {
  if (pass.kind === 'area') return findArea(small, pass);
  if (pass.kind === 'colour') return findColor(small, pass);
  const ground = seen ? lineCoverage(small, seen.ground) : new Float32Array(small.r.length);
  return followEdges(small, findCastShadow(small, ground));
}

/** What a pass looks for on the small copy, as lines. */
export const found = stage({
  name: 'found',
  part: 'the mattes',
  region: (at) => smallOf(at).region,
  settings: (_, pass: FoundPass): FoundPass => ({ ...pass, join: 'add' }),
  inputs: (at, { kind }) => ({ plate: plate(at), survey: kind === 'shadow' ? survey(at) : undefined }),
  planes: (pixels) => ({ slope: pixels, offset: pixels }),
  pace: 'heavy',
  whole: true,
  lasting: true,
  newest: ({ id }) => id,
  run(out, inputs, { prepared: pass }) {
    const line = find(inputs.plate, pass, inputs.survey && surveyIn(inputs.survey));
    out.slope.set(line.slope);
    out.offset.set(line.offset);
  },
});

/** What an edge brush found, a picture of the whole plate at a size of its own. */
export const brushed = stage({
  name: 'brushed',
  part: 'the mattes',
  settings: (_, asset: string) => asset,
  // The whole picture, wherever it is asked for.
  region: (at) => smallOf(at).region,
  inputs: () => ({}),
  load: (assets, asset, _, signal) => assets.coverage(asset, signal),
  prepare: ({ loaded: { width, height } }) => ({ width, height }),
  facts: (size) => size,
  planes: (_, { width, height }) => ({ data: width * height }),
  pace: 'heavy',
  whole: true,
  run(out, _, { loaded }) {
    for (let i = 0; i < out.data.length; i++) out.data[i] = loaded![i] / 255;
  },
});
