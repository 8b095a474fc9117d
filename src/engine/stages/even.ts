import { evenOut, levelling as findLevelling, shadingOf } from '@/core/day/even-out';
import { layAll } from '@/core/placed/lay-over';
import { smallOf, type Spot } from '../graph/spot';
import { stage } from '../graph/stage';
import type { Want } from '../graph/stage-spec';
import type { View } from '../graph/view';
import { laidAt } from './placed';
import { hasSky, skyline } from './skyline';
import { shown, unshaded } from './sun';
import { survey, surveyIn } from './survey';

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
