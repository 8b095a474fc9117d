import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { developLight } from './develop-light';
import { createDisplayCodes, DISPLAY_CODE_STEPS } from './display-codes';
import { filmCurve, filmResponse } from './film-response';

const light = fc.double({ min: 0, max: 50, noNaN: true });

describe('filmCurve', () => {
  it('is undone by its inverse', () => {
    fc.assert(
      fc.property(fc.double({ min: 0, max: 8, noNaN: true }), (x) => {
        expect(filmCurve.undevelop(filmCurve.develop(x))).toBeCloseTo(x, 6);
      }),
    );
  });

  it('rises everywhere and stays within 0 and 1', () => {
    fc.assert(
      fc.property(light, light, (a, b) => {
        const [low, high] = [Math.min(a, b), Math.max(a, b)].map(filmCurve.develop);
        expect(low).toBeLessThanOrEqual(high);
        expect(low).toBeGreaterThanOrEqual(0);
        expect(high).toBeLessThanOrEqual(1);
      }),
    );
  });

  it('leaves middle grey about where it is', () => {
    expect(filmCurve.develop(0.18)).toBeGreaterThan(0.165);
    expect(filmCurve.develop(0.18)).toBeLessThan(0.185);
  });
});

describe('filmResponse', () => {
  it('keeps grey grey', () => {
    fc.assert(
      fc.property(light, (x) => {
        const [r, g, b] = filmResponse([x, x, x]);
        expect(r).toBeCloseTo(g, 9);
        expect(g).toBeCloseTo(b, 9);
      }),
    );
  });

  it('takes the hottest light of any colour to white, and leaves a halo its colour', () => {
    const hot = filmResponse([900, 350, 90]);
    expect(Math.min(...hot)).toBeGreaterThan(0.99);
    const [r, , b] = filmResponse([0.4, 0.16, 0.04]);
    expect(r / b).toBeGreaterThan(5);
  });
});

it('display codes run from black to white without a gap of more than one code', () => {
  const codes = createDisplayCodes(255);
  expect(codes[0]).toBe(0);
  expect(codes[DISPLAY_CODE_STEPS - 1]).toBe(255);
  for (let i = 1; i < codes.length; i++) expect(codes[i] - codes[i - 1]).toBeLessThanOrEqual(1);
});

it('codes of 16 bits have finer steps than their table', () => {
  const count = 20_000;
  const light = Float32Array.from({ length: count }, (_, i) => 0.05 + (0.01 * i) / count);
  const out = new Uint16Array(4 * count);
  const planes = { width: count, height: 1, r: light, g: light, b: light };
  developLight(out, planes, createDisplayCodes(65535));
  const greens = Array.from({ length: count }, (_, i) => out[4 * i + 1]);
  greens.slice(1).forEach((code, i) => expect(code - greens[i]).toBeGreaterThanOrEqual(0));
  expect(new Set(greens).size).toBeGreaterThan(0.9 * (greens[count - 1] - greens[0]));
});
