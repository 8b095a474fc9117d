import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { linearToOklab } from './linear-to-oklab';
import { luminance, unitLuminance } from './luminance';
import { blackbodyRgb, planckianXyz } from './planckian';
import { srgb } from './srgb';

describe('srgb', () => {
  it('meets the known values of IEC 61966-2-1', () => {
    expect(srgb.decode(0.5)).toBeCloseTo(0.21404, 5);
    expect(srgb.encode(0.18)).toBeCloseTo(0.46135, 4);
    expect(srgb.encode(1)).toBeCloseTo(1, 12);
  });

  it('is undone by its inverse, below 0 and above 1 too', () => {
    fc.assert(
      fc.property(fc.double({ min: -2, max: 4, noNaN: true }), (light) => {
        expect(srgb.decode(srgb.encode(light))).toBeCloseTo(light, 6);
      }),
    );
  });
});

describe('planckianXyz', () => {
  /** Chromaticities of the Planckian locus: CIE illuminant A, and Wyszecki and Stiles 1982, table I(3.11). */
  it.each([
    [2856, 0.4476, 0.4075],
    [4000, 0.3805, 0.3768],
    [6500, 0.3135, 0.3237],
    [10000, 0.2807, 0.2884],
  ])('puts %i K at x %f, y %f', (kelvin, x, y) => {
    const [X, Y, Z] = planckianXyz(kelvin);
    expect(X / (X + Y + Z)).toBeCloseTo(x, 2);
    expect(Y / (X + Y + Z)).toBeCloseTo(y, 2);
  });
});

describe('blackbodyRgb', () => {
  it('is white at the temperature for which the camera is balanced', () => {
    blackbodyRgb(5500, 5500).forEach((channel) => expect(channel).toBeCloseTo(1, 9));
  });

  it('keeps luminance 1 and no channel below 0 at every temperature', () => {
    fc.assert(
      fc.property(fc.double({ min: 0, max: 1e6, noNaN: true }), (kelvin) => {
        const color = blackbodyRgb(kelvin, 5500);
        expect(luminance(color)).toBeCloseTo(1, 9);
        expect(Math.min(...color)).toBeGreaterThanOrEqual(0);
      }),
    );
  });

  it('goes from red to blue as it gets hotter', () => {
    const ratios = [1500, 2850, 4000, 6500, 12000].map((kelvin) => {
      const [r, , b] = blackbodyRgb(kelvin, 5500);
      return b / r;
    });
    expect([...ratios].sort((p, q) => p - q)).toEqual(ratios);
  });
});

it('unitLuminance makes white of no light', () => {
  expect(unitLuminance([0, 0, 0])).toEqual([1, 1, 1]);
});

it('linearToOklab gives the published values of white and of sRGB red', () => {
  const [l, a, b] = linearToOklab([1, 1, 1]);
  expect([l, a, b].map((n) => Number(n.toFixed(3)) + 0)).toEqual([1, 0, 0]);
  const red = linearToOklab([1, 0, 0]);
  expect(red[0]).toBeCloseTo(0.628, 3);
  expect(red[1]).toBeCloseTo(0.2249, 3);
  expect(red[2]).toBeCloseTo(0.1258, 3);
});
