import fc from 'fast-check';
import { expect, it } from 'vitest';
import { toneHistogram } from './tone-histogram';

const grey = (code: number, count: number) =>
  Uint8ClampedArray.from({ length: 4 * count }, (_, i) => (i % 4 === 3 ? 255 : code));

it('puts a grey picture into the one bin of its code', () => {
  fc.assert(
    fc.property(fc.integer({ min: 0, max: 255 }), fc.integer({ min: 1, max: 300 }), (code, count) => {
      const { shares, black, white } = toneHistogram(grey(code, count));
      expect(shares[code]).toBeCloseTo(1, 6);
      expect(black).toBe(code === 0 ? 1 : 0);
      expect(white).toBe(code === 255 ? 1 : 0);
    }),
  );
});

it('adds up to one, whatever the picture, and counts a channel at its end', () => {
  const codes = Uint8ClampedArray.from({ length: 4 * 200_000 }, (_, i) => (i * 37) % 256);
  expect(toneHistogram(codes).shares.reduce((a, b) => a + b)).toBeCloseTo(1, 3);
  expect(toneHistogram(Uint8ClampedArray.of(255, 10, 0, 255))).toMatchObject({ black: 1, white: 1 });
  expect(toneHistogram(new Uint8ClampedArray(0)).black).toBe(0);
});
