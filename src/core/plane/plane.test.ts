import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { createAreaShrink } from './area-shrink';
import { bilinearRow } from './bilinear-row';
import { createBoxBlur } from './box-blur';
import { fillHoles } from './fill-holes';
import { flood } from './flood';
import { geodesicReach } from './geodesic-reach';
import { createGuidedFilter } from './guided-filter';
import { createPlane } from './plane';
import { rowsOf, wholeRegion } from './region';

const mean = (data: ArrayLike<number>) => Array.from(data).reduce((a, b) => a + b, 0) / data.length;
const floats = (count: number) =>
  fc.array(fc.float({ min: 0, max: 1, noNaN: true }), { minLength: count, maxLength: count });

describe('createAreaShrink', () => {
  const STEPS = 10_000;
  const linearOf = Float32Array.from({ length: STEPS + 1 }, (_, code) => code / STEPS);
  /** Shrinks a grey picture, in two goes; values are light, 0 to 1. */
  const shrink = (data: number[], from: [number, number], to: [number, number]) => {
    const codes = Uint16Array.from({ length: 3 * data.length }, (_, i) =>
      Math.round(STEPS * data[(i / 3) | 0]),
    );
    const out = new Float32Array(3 * to[0] * to[1]);
    const fill = createAreaShrink(
      out,
      { width: from[0], height: from[1], codes, curves: [linearOf, linearOf, linearOf] },
      { width: to[0], height: to[1] },
    );
    fill({ from: 0, to: to[1] >> 1 });
    fill({ from: to[1] >> 1, to: to[1] });
    return out.filter((_, i) => i % 3 === 1);
  };
  const near = (found: Float32Array, expected: number[]) =>
    expected.forEach((value, i) => expect(found[i]).toBeCloseTo(value, 4));

  it('averages whole blocks', () => {
    near(shrink([0.1, 0.3, 0.5, 0.7, 0.1, 0.3, 0.5, 0.7], [4, 2], [2, 1]), [0.2, 0.6]);
  });

  it('keeps the mean at odd ratios', () => {
    fc.assert(
      fc.property(floats(7 * 5), (data) => {
        expect(mean(shrink(data, [7, 5], [3, 2]))).toBeCloseTo(mean(data), 3);
      }),
    );
  });

  it('copies at the same size', () => {
    near(shrink([0, 0.25, 0.5, 1], [2, 2], [2, 2]), [0, 0.25, 0.5, 1]);
  });
});

describe('createBoxBlur', () => {
  it('leaves a constant alone, to the very edge', () => {
    const blur = createBoxBlur(9, 6, 4);
    const out = new Float32Array(54);
    blur(out, new Float32Array(54).fill(0.7));
    for (const value of out) expect(value).toBeCloseTo(0.7, 6);
  });

  it('spreads a point evenly over its window', () => {
    const source = new Float32Array(49);
    source[24] = 9;
    const out = new Float32Array(49);
    createBoxBlur(7, 7, 1)(out, source);
    expect(out[24]).toBeCloseTo(1, 6);
    expect(out[16]).toBeCloseTo(1, 6);
    expect(out[9]).toBeCloseTo(0, 6);
  });
});

describe('createGuidedFilter', () => {
  it('gives back its guide where that is far from flat', () => {
    const guide = Float32Array.from({ length: 400 }, (_, i) => (i % 20 < 10 ? 0 : 1));
    const { slope, offset } = createGuidedFilter(guide, 20, 20, 3, 1e-6)(guide);
    guide.forEach((g, i) => {
      if (i % 20 > 4 && i % 20 < 15) expect(slope[i] * g + offset[i]).toBeCloseTo(g, 2);
    });
  });

  it('is the mean where the guide is flat', () => {
    const source = Float32Array.from({ length: 400 }, (_, i) => i % 2);
    const { slope, offset } = createGuidedFilter(new Float32Array(400).fill(0.5), 20, 20, 3, 1e-4)(source);
    expect(slope[210]).toBeCloseTo(0, 6);
    expect(offset[210]).toBeCloseTo(0.5, 1);
  });
});

describe('bilinearRow', () => {
  it('reads a ramp exactly at any scale, in a part as in the whole', () => {
    const ramp = createPlane(10, 4);
    ramp.data.forEach((_, i) => (ramp.data[i] = (i % 10) + 0.5));
    const whole = wholeRegion(40, 16);
    const part = { ...rowsOf(whole, 6, 2), left: 8, width: 12 };
    const all = new Float32Array(40);
    const some = new Float32Array(12);
    bilinearRow(all, ramp, whole, 7);
    bilinearRow(some, ramp, part, 1);
    expect(all[20]).toBeCloseTo((20.5 / 40) * 10, 5);
    some.forEach((value, i) => expect(value).toBeCloseTo(all[8 + i], 5));
  });
});

describe('flood and fillHoles', () => {
  it('does not cross corners', () => {
    const allowed = Uint8Array.from([1, 0, 0, 1]);
    const out = new Int32Array(4);
    expect(flood(out, allowed, 2, 2, 0)).toBe(1);
    expect([...allowed]).toEqual([1, 0, 0, 1]);
  });

  it('fills small holes and leaves large ones', () => {
    const mask = new Uint8Array(100).fill(1);
    mask[11] = 0;
    for (let y = 4; y < 8; y++) mask.fill(0, y * 10 + 4, y * 10 + 8);
    fillHoles(mask, 10, 10, 4);
    expect(mask[11]).toBe(1);
    expect(mask[55]).toBe(0);
  });
});

describe('geodesicReach', () => {
  it('measures city-block distance where every step costs one, around what is barred', () => {
    const out = new Float32Array(25).fill(Infinity);
    out[0] = 0;
    const barred = new Uint8Array(25);
    for (const i of [1, 6, 11, 16]) barred[i] = 1;
    const labels = new Float32Array(25);
    labels[0] = 7;
    geodesicReach(out, barred, 5, 5, () => 1, labels);
    expect(out[2]).toBe(10);
    expect(labels[2]).toBe(7);
    expect(out[1]).toBe(Infinity);
  });

  it('agrees with relaxing until nothing changes', () => {
    fc.assert(
      fc.property(floats(36), (heights) => {
        const cost = (from: number, to: number) => Math.abs(heights[from] - heights[to]) + 0.01;
        const out = new Float32Array(36).fill(Infinity);
        out[14] = 0;
        geodesicReach(out, new Uint8Array(36), 6, 6, cost);
        for (let i = 0; i < 36; i++) {
          const around = [
            i % 6 > 0 ? i - 1 : i,
            i % 6 < 5 ? i + 1 : i,
            Math.max(i % 6, i - 6),
            i < 30 ? i + 6 : i,
          ];
          for (const k of around) expect(out[i]).toBeLessThanOrEqual(out[k] + cost(k, i) + 1e-5);
        }
      }),
      { numRuns: 30 },
    );
  });
});
