import { isUp } from '@/core/fields/fader-gain';
import { halved, veilLight } from '@/core/lens/veil';
import { regionKey, wholeRegion } from '@/core/plane/region';
import { smallOf, type Spot } from '../graph/spot';
import { stage } from '../graph/stage';
import { LEAST_SIDE } from '../sizes';
import { sceneLight } from './drift';

/** All light before the lens on the small copy, kept: the veil is made of it, and a coarse frame shows it. */
export const smallLight = stage({
  name: 'small light',
  part: 'the lens',
  region: (at) => smallOf(at).region,
  settings: () => undefined,
  inputs: (at) => ({ light: sceneLight(at) }),
  planes: (pixels) => ({ r: pixels, g: pixels, b: pixels }),
  pace: 'quick',
  pointwise: true,
  newest: () => '',
  run(out, inputs, _, { of }) {
    const [made, light] = [of(out), of(inputs.light)];
    for (const c of ['r', 'g', 'b'] as const) made[c].set(light[c]);
  },
});

/** All light before the lens; that of the small copy is there anyway where there is a veil. */
export const lightBefore = (at: Spot) =>
  isUp(at.scene.desk.veil) && regionKey(at.region) === regionKey(smallOf(at).region)
    ? smallLight(at)
    : sceneLight(at);

/** A side that was halved twice. */
const quarterOf = (side: number) => Math.ceil(Math.ceil(side / 2) / 2);

/** Light that the lens spreads over the picture, on a copy of a quarter of the small one's size: it is smooth. */
export const veil = stage({
  name: 'veil',
  part: 'the lens',
  region(at) {
    const { width, height } = smallOf(at).region;
    return wholeRegion(quarterOf(width), quarterOf(height));
  },
  settings: ({ scene }) => scene.lens.veilReach,
  inputs: (at) => ({ light: smallLight(at) }),
  planes: (pixels) => ({
    ...{ r: pixels, g: pixels, b: pixels },
    ...{ smallR: pixels, smallG: pixels, smallB: pixels, one: pixels, scratch: pixels },
  }),
  pace: 'quick',
  whole: true,
  newest: () => '',
  run(out, { light }, { prepared: reach, kernels }) {
    const { width, height, smallR: r, smallG: g, smallB: b, one, scratch } = out;
    const quarter = halved(halved(light));
    r.set(quarter.r);
    g.set(quarter.g);
    b.set(quarter.b);
    const kit = Math.min(width, height) < LEAST_SIDE ? undefined : kernels;
    veilLight(out, { width, height, r, g, b }, reach, [one, scratch], kit);
  },
});
