import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { LUMINANCE, luminance } from '../color/luminance';
import { newScene } from '../scene/new-scene';
import { parseScene } from '../scene/parse-scene';
import { CAMERA_WHITE } from '../color/camera-white';
import { ambientGains } from './ambient-gains';
import { HOLD_MIDDLE, highlightHold } from './highlight-hold';
import { meteredGain } from './metered-gain';
import { NOCTURNES } from './nocturnes';
import { fadedGrey, SCOTOPIC } from './scotopic';
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

describe('meteredGain', () => {
  it('brings the land to middle grey, or leaves the plate as it was shot', () => {
    expect(0.06 * meteredGain({ meter: 1 }, 0.06)).toBeCloseTo(0.18, 9);
    expect(0.5 * meteredGain({ meter: 1 }, 0.5)).toBeCloseTo(0.18, 9);
    expect(meteredGain({ meter: 0 }, 0.06)).toBe(1);
    expect(meteredGain({ meter: 0.5 }, 0.045)).toBeCloseTo(2, 9);
  });

  it('has an end', () => {
    expect(meteredGain({ meter: 1 }, 1e-9)).toBe(32);
  });
});

describe('fadedGrey', () => {
  it('is luminance for cones, and keeps white white for rods', () => {
    expect(fadedGrey(0)).toEqual(LUMINANCE);
    for (const rods of [0, 0.3, 1]) expect(fadedGrey(rods).reduce((a, b) => a + b)).toBeCloseTo(1, 9);
  });

  it('carries the published weights of XYZ into sRGB', () => {
    const xyz = (r: number, g: number, b: number) => [
      0.4124 * r + 0.3576 * g + 0.1805 * b,
      0.2126 * r + 0.7152 * g + 0.0722 * b,
      0.0193 * r + 0.1192 * g + 0.9505 * b,
    ];
    const rods = (r: number, g: number, b: number) => {
      const [x, y, z] = xyz(r, g, b);
      return -0.702 * x + 1.039 * y + 0.433 * z;
    };
    const white = rods(1, 1, 1);
    [rods(1, 0, 0), rods(0, 1, 0), rods(0, 0, 1)].forEach((weight, i) => {
      expect(SCOTOPIC[i]).toBeCloseTo(weight / white, 3);
    });
  });
});

describe('highlightHold', () => {
  it('leaves black alone, takes half at its middle, and all at most', () => {
    expect(highlightHold(0, 1)).toBe(1);
    expect(highlightHold(HOLD_MIDDLE, 1)).toBeCloseTo(0.5, 9);
    expect(highlightHold(1, 0)).toBe(1);
    expect(highlightHold(1, 1)).toBeGreaterThan(0);
  });
});

describe('NOCTURNES', () => {
  it('are eight nights that differ, each one that a scene can have', () => {
    expect(new Set(NOCTURNES.map(({ id }) => id)).size).toBeGreaterThanOrEqual(8);
    const scene = newScene('Test', { asset: '0'.repeat(64), width: 100, height: 100 });
    for (const { night } of NOCTURNES) expect(parseScene({ ...scene, night }).night).toEqual(night);
    expect(new Set(NOCTURNES.map(({ night }) => JSON.stringify(night))).size).toBe(NOCTURNES.length);
  });
});
