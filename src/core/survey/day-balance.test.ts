import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { linearToOklab } from '../color/linear-to-oklab';
import { seeded } from '../fixture/seeded';
import { dayBalance, liftFrom } from './day-balance';

/** Plaster, paving, brick, pale stone and a lawn, as a street by day: linear light. */
const STREET = [
  [0.55, 0.5, 0.44],
  [0.3, 0.28, 0.25],
  [0.3, 0.15, 0.1],
  [0.75, 0.72, 0.66],
  [0.1, 0.15, 0.04],
] as const;

/** Oklab planes of a street of many pixels under a light of some colour. */
function seenUnder(light: readonly number[], tones: readonly (readonly number[])[] = STREET) {
  const random = seeded(3);
  const pixels = Array.from({ length: 4000 }, () => {
    const own = 0.8 + 0.4 * random();
    const tone = tones[Math.floor(random() * tones.length)];
    return linearToOklab([
      Math.min(1, own * tone[0] * light[0]),
      Math.min(1, own * tone[1] * light[1]),
      Math.min(1, own * tone[2] * light[2]),
    ]);
  });
  const [lightness, a, b] = [0, 1, 2].map((c) => Float32Array.from(pixels, (pixel) => pixel[c]));
  return { lightness, a, b, ...dayBalance(lightness, a, b) };
}

/** How yellow white is under a light, once it is balanced: of a lightness of 1. */
const whiteAfter = (light: readonly number[]) => {
  const { cast } = seenUnder(light);
  const [lightness, , b] = linearToOklab([light[0], light[1], light[2]]);
  return b / lightness - cast.b;
};

describe('the balance of a day', () => {
  it('lifts a dark plate to a lighter one’s lightness, whatever its exposure, and darkens none', () => {
    const dim = seenUnder([0.6, 0.6, 0.6]);
    fc.assert(
      fc.property(fc.double({ min: 0.15, max: 0.6, noNaN: true }), (gain) => {
        const dark = seenUnder([gain, gain, gain]);
        expect(dark.lift * dark.lightness[7]).toBeCloseTo(dim.lift * dim.lightness[7], 3);
      }),
    );
    expect(liftFrom(new Float32Array(50).fill(0.95))).toBe(1);
    expect(liftFrom(new Float32Array(50))).toBeLessThan(3);
  });

  it('leaves a plate in daylight as it is', () => {
    expect(seenUnder([1, 1, 1])).toMatchObject({ cast: { a: 0, b: 0 }, oneHue: false });
  });

  it('takes most of a plainly warm or cold light out', () => {
    for (const warmth of [0.4, 0.5, 2, 2.5]) {
      const light = [1, 0.5 + 0.5 * warmth ** 0.5, warmth].map((c) => c / Math.max(1, warmth));
      const [lightness, , b] = linearToOklab([light[0], light[1], light[2]]);
      expect(Math.abs(whiteAfter(light)), `blue times ${warmth}`).toBeLessThan(0.5 * Math.abs(b / lightness));
    }
  });

  it('knows black and white, and sepia, and takes their hue out', () => {
    const greys = STREET.map(([r, g, b]) => (r + g + b) / 3);
    for (const hue of [
      [1, 1, 1],
      [1, 0.8, 0.55],
    ]) {
      const seen = seenUnder(
        hue,
        greys.map((grey) => [grey, grey, grey]),
      );
      expect(seen.oneHue).toBe(true);
      expect(seen.b[11] - seen.cast.b * seen.lightness[11]).toBeCloseTo(0, 2);
      expect(seen.a[11] - seen.cast.a * seen.lightness[11]).toBeCloseTo(0, 2);
    }
  });
});
