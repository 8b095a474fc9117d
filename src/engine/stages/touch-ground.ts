import { faderGain, isUp } from '@/core/fields/fader-gain';
import { veilShare } from '@/core/lens/veil';
import { applyGrip, isPlainGrip } from '@/core/picture/grip';
import { nightGains, pictureWeights } from '@/core/picture/weights';
import type { RgbPlanes } from '@/core/plane/plane';
import type { Scene, Touch } from '@/core/scene/schema';
import { stage } from '../graph/stage';
import { evened } from './even';
import { exposed } from './lens';
import { seenPlate } from './placed';
import { relief } from './relief';
import { hasSky } from './skyline';
import { survey } from './survey';
import { holdback, nightLight, touched } from './touch';

/** The weights of a touch's light, as its circuit and gel have them. */
function layerOf({ circuits }: Pick<Scene, 'circuits'>, { circuit: id, gel }: Touch) {
  const circuit = circuits.find((one) => one.id === id);
  return circuit ? [{ circuit, gel, fixtures: [] }] : [];
}

/** What each place of a picture gains from a stroke of a touch, for a brush that shows its light at once. */
export const touchGround = stage({
  name: 'touch ground',
  part: 'the touches',
  settings: (at, { does, amount, gel, circuit }: Touch) => {
    const { night, desk, circuits } = at.scene;
    return { ...{ night, desk, circuits }, touch: { does, amount, gel, circuit }, skied: hasSky(at) };
  },
  inputs: (at, touch) => ({
    light: exposed(at),
    hold: holdback(at, touch),
    touched: touched(at, touch),
    survey: survey(at),
    relief: touch.does === 'air' ? undefined : relief(at),
    surface: touch.does === 'surface' ? { plate: evened(at), tones: seenPlate(at) } : undefined,
    night: touch.does === 'lift' ? nightLight(at) : undefined,
  }),
  prepare({ settings: { touch, skied, ...scene }, inputs }) {
    const layers = layerOf(scene, touch as Touch);
    const median = inputs.survey.medianLuminance[0];
    const all = pictureWeights(scene, layers, median);
    const { mist, layers: weights } = all;
    return {
      ...{ touch, perMetre: mist.perMetre, grip: layers[0]?.circuit.grip },
      weights: weights[0] ?? { spill: [0, 0, 0], source: [0, 0, 0] },
      gains: nightGains(all, skied),
      // What the lens spreads of the stroke's light follows once it is let go.
      own: isUp(scene.desk.veil) ? 1 - veilShare(faderGain(scene.desk.veil)) : 1,
    };
  },
  planes: (pixels) => ({
    ...{ r: pixels, g: pixels, b: pixels, gainR: pixels, gainG: pixels, gainB: pixels },
    ...{ taken: pixels, room: pixels },
  }),
  pace: 'quick',
  newest: () => '',
  run(out, inputs, { prepared: { touch, weights, perMetre, grip, gains, own } }, { of, cut }) {
    const { r, g, b, gainR, gainG, gainB, taken, room } = of(out);
    const light = of(inputs.light);
    [r, g, b].forEach((plane, c) => plane.set([light.r, light.g, light.b][c]));
    const [hold, covered] = [cut(inputs.hold.share), cut(inputs.touched.coverage)];
    for (let i = 0; i < hold.length; i++) {
      taken[i] = covered[i];
      room[i] = hold[i] - covered[i];
    }
    const gain: RgbPlanes = { width: out.width, height: out.height, r: gainR, g: gainG, b: gainB };
    if (!inputs.relief) {
      for (const [c, plane] of [gainR, gainG, gainB].entries())
        plane.fill(own * touch.amount * weights.source[c]);
      return;
    }
    const { distance, land } = of(inputs.relief);
    const share = new Float32Array(land.length).fill(touch.amount);
    if (inputs.surface) {
      if (grip && !isPlainGrip(grip)) applyGrip(share, share, of(inputs.surface.tones), grip);
    } else
      for (let i = 0; i < share.length; i++) share[i] = gains.sky + (gains.ambient - gains.sky) * land[i];
    for (let i = 0; i < share.length; i++) share[i] *= own * Math.exp(-perMetre * distance[i]);
    const lit = inputs.surface ? inputs.surface.plate : inputs.night!;
    fill(gain, inputs.surface ? weights.spill : [1, 1, 1], share, of(lit));
  },
});

/** Fills each channel by a weight, a share a pixel and another picture's. */
function fill(out: RgbPlanes, weights: readonly number[], share: Float32Array, from: RgbPlanes): void {
  for (const [c, name] of (['r', 'g', 'b'] as const).entries()) {
    const [to, channel] = [out[name], from[name]];
    for (let i = 0; i < to.length; i++) to[i] = weights[c] * share[i] * channel[i];
  }
}
