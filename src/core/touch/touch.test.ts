import { describe, expect, it } from 'vitest';
import fc from 'fast-check';
import { paintCoverage } from '../matte/paint-coverage';
import { createCamera } from '../geometry/camera';
import { wholeRegion } from '../plane/region';
import type { PaintStroke } from '../matte/pass';
import { testStroke } from '../../../test/touches';
import { weighByForm } from './form-weight';
import { liftLight } from './lift-light';

const REGION = wholeRegion(120, 80);
const MIDDLE = 64 * 120 + 54;

const laid = (strokes: PaintStroke[]) => {
  const out = new Float32Array(REGION.width * REGION.height);
  paintCoverage(out, out.slice(), strokes, REGION);
  return out;
};

describe('light that is laid on', () => {
  it('builds up as 1 - exp(-sum): each stroke takes the same share of what is left', () => {
    const weak = testStroke({ flow: 0.04 });
    const [one] = [laid([weak])[MIDDLE]];
    for (const times of [2, 5, 20]) {
      const many = laid(Array<PaintStroke>(times).fill(weak))[MIDDLE];
      expect(many).toBeCloseTo(1 - (1 - one) ** times, 5);
    }
    expect(laid(Array<PaintStroke>(200).fill(weak))[MIDDLE]).toBeLessThanOrEqual(1);
  });

  it('dabs of a few per cent come to an exponential of their sum', () => {
    const flows = [0.01, 0.02, 0.04].map(
      (flow) => -Math.log(1 - laid([testStroke({ flow })])[MIDDLE]) / flow,
    );
    for (const ratio of flows) expect(ratio / flows[0]).toBeCloseTo(1, 1);
  });

  it('is the same however many strokes there are elsewhere, in any order', () => {
    const away = testStroke({ path: [0.1, 0.1, 1, 0.2, 0.1, 1] });
    const here = testStroke({ flow: 0.1 });
    expect(laid([away, here, away])[MIDDLE]).toBe(laid([here])[MIDDLE]);
    const erasing = testStroke({ erase: true, flow: 1 });
    expect(laid([here, erasing])[MIDDLE]).toBeLessThan(1e-3);
    expect(laid([erasing, here])[MIDDLE]).toBe(laid([here])[MIDDLE]);
  });
});

describe('a touch by form', () => {
  it('is weighed by the cosine toward a place, and none where a surface turns away', () => {
    const camera = createCamera({ horizon: { left: 0.5, right: 0.5 }, eyeHeight: 1.6, lens: 36 }, 1.5);
    const region = wholeRegion(1, 1);
    fc.assert(
      fc.property(fc.double({ min: -Math.PI, max: Math.PI, noNaN: true }), (turn) => {
        const lie = {
          reach: Float32Array.of(4),
          normalX: Float32Array.of(Math.sin(turn)),
          normalY: Float32Array.of(-Math.cos(turn)),
          normalZ: Float32Array.of(0),
          unknownFacing: Float32Array.of(0),
        };
        const out = Float32Array.of(1);
        // The surface lies four metres straight ahead, the place half way to it: light comes from the eye.
        weighByForm(out, lie, camera, region, [0, 2, 1.6]);
        expect(out[0]).toBeCloseTo(Math.max(0, Math.cos(turn)), 3);
      }),
    );
  });
});

describe('lifting and holding', () => {
  it('goes by stops, and touches add up', () => {
    const plane = () => Float32Array.of(0.2, 0.2, 0.2);
    const light = { width: 3, height: 1, r: plane(), g: plane(), b: plane() };
    const coverage = Float32Array.of(0, 0.5, 1);
    liftLight(light, light, [
      { coverage, stops: 2 },
      { coverage, stops: -1 },
    ]);
    const gains = [1, Math.SQRT2, 2];
    gains.forEach((gain, i) => expect(light.r[i]).toBeCloseTo(0.2 * gain, 6));
  });
});
