import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { luminance } from '../color/luminance';
import { ambientGains, CAMERA_WHITE } from './ambient-gains';
import { ambientLux, hourName, HOURS, hourValues, sunDepth } from './hour';

describe('hour', () => {
  it('meets the known light of twilight', () => {
    const hourOf = (depth: number) => depth / sunDepth(1);
    expect(ambientLux(0)).toBeCloseTo(400, -1);
    expect(ambientLux(hourOf(6))).toBeCloseTo(3.4, 0);
    expect(ambientLux(hourOf(12))).toBeLessThan(0.2);
  });

  it('gets darker all the way', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 1, noNaN: true }),
        fc.double({ min: 0, max: 1, noNaN: true }),
        (a, b) => {
          const [early, late] = [Math.min(a, b), Math.max(a, b)];
          expect(ambientLux(late)).toBeLessThanOrEqual(ambientLux(early));
          expect(hourValues(late).exposure).toBeLessThanOrEqual(hourValues(early).exposure);
        },
      ),
    );
  });

  it('gives the named hours their own values, and holds outside the line', () => {
    for (const { at, name, exposure, kelvin } of HOURS) {
      expect(hourName(at)).toBe(name);
      expect(hourValues(at).exposure).toBeCloseTo(exposure, 9);
      expect(hourValues(at).kelvin).toBeCloseTo(kelvin, 6);
    }
    expect(hourValues(7)).toEqual(hourValues(1));
  });
});

describe('ambientGains', () => {
  it('is exposure alone at the white of the camera', () => {
    ambientGains(-3, CAMERA_WHITE, 0).forEach((gain) => expect(gain).toBeCloseTo(1 / 8, 6));
  });

  it('leaves the luminance of grey alone, whatever kelvin and tint', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 1500, max: 20000, noNaN: true }),
        fc.double({ min: -1, max: 1, noNaN: true }),
        (kelvin, tint) => {
          expect(luminance(ambientGains(0, kelvin, tint))).toBeCloseTo(1, 6);
        },
      ),
    );
  });

  it('goes blue with kelvin and magenta with tint', () => {
    const [r, , b] = ambientGains(0, 9000, 0);
    expect(b).toBeGreaterThan(r);
    expect(ambientGains(0, 6000, 0.5)[1]).toBeLessThan(ambientGains(0, 6000, 0)[1]);
  });
});
