import fc from 'fast-check';
import { expect, it } from 'vitest';
import { displayP3Codes } from './display-p3';
import { srgb } from './srgb';

const turned = (rgb: number[]) => {
  const out = new Uint16Array(rgb.length);
  displayP3Codes(out, Uint16Array.from(rgb));
  return [...out];
};

/** From linear light of each set of primaries to CIE XYZ. */
const SRGB_XYZ = [
  [0.4123908, 0.3575843, 0.1804808],
  [0.212639, 0.7151687, 0.0721923],
  [0.0193308, 0.1191948, 0.9505322],
];
const P3_XYZ = [
  [0.4865709, 0.2656677, 0.1982173],
  [0.2289746, 0.6917385, 0.0792869],
  [0, 0.0451134, 1.0439444],
];
const xyz = (matrix: number[][], codes: number[]) =>
  matrix.map((row) => row.reduce((sum, share, c) => sum + share * srgb.decode(codes[c] / 65535), 0));

it('keeps the colour that codes stand for', () => {
  const code = fc.integer({ min: 0, max: 65535 });
  const colors = fc.array(fc.tuple(code, code, code), { minLength: 1, maxLength: 60 });
  fc.assert(
    fc.property(colors, (many) => {
      const out = turned(many.flat());
      many.forEach((rgb, i) => {
        const [was, is] = [xyz(SRGB_XYZ, rgb), xyz(P3_XYZ, out.slice(3 * i, 3 * i + 3))];
        is.forEach((value, c) => expect(Math.abs(value - was[c])).toBeLessThan(4e-5));
      });
    }),
    { numRuns: 20 },
  );
});

it('leaves greys as they are, black and white to the code', () => {
  expect(turned([0, 0, 0])).toEqual([0, 0, 0]);
  expect(turned([65535, 65535, 65535])).toEqual([65535, 65535, 65535]);
  for (const grey of [1, 9, 300, 2600, 20000, 50001]) {
    turned([grey, grey, grey]).forEach((code) => expect(Math.abs(code - grey)).toBeLessThanOrEqual(1));
  }
});
