import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { srgb } from '../color/srgb';
import type { Rgb } from '../color/rgb';
import { wholeRegion, type Region } from '../plane/region';
import { findArea } from './find-area';
import { findColor } from './find-color';
import { toneCoverage } from './key-coverage';
import { matteCoverage, type PassInputs } from './matte-coverage';
import { outlineRow } from '../geometry/outline-row';
import { joinCoverage, type AreaPass, type ColorPass, type Join, type Pass } from './pass';
import { rampCoverage } from './ramp-coverage';
import { showCoverage } from './show-coverage';

const fraction = fc.double({ min: 0, max: 1, noNaN: true });
const [WIDTH, HEIGHT] = [60, 40];
const WHOLE = wholeRegion(WIDTH, HEIGHT);

/** A plate of two halves, left and right. */
function halves(left: Rgb, right: Rgb) {
  const channel = (c: 0 | 1 | 2) =>
    Float32Array.from({ length: WIDTH * HEIGHT }, (_, i) => (i % WIDTH < WIDTH / 2 ? left[c] : right[c]));
  return { width: WIDTH, height: HEIGHT, r: channel(0), g: channel(1), b: channel(2) };
}

const NOTHING: PassInputs = {
  found: { width: WIDTH, height: HEIGHT, lines: new Map() },
  brushed: new Map(),
  mattes: new Map(),
};

function cover(passes: Pass[], plate = halves([0.1, 0.1, 0.1], [0.5, 0.5, 0.5]), inputs = NOTHING) {
  const out = new Float32Array(WIDTH * HEIGHT);
  matteCoverage(out, passes, plate, inputs, WHOLE);
  return (u: number, v: number) => out[Math.floor(v * HEIGHT) * WIDTH + Math.floor(u * WIDTH)];
}

const rect = (id: string, join: Pass['join'], u0: number, u1: number): Pass => ({
  id,
  join,
  kind: 'outline',
  points: [
    { u: u0, v: 0.1 },
    { u: u1, v: 0.1 },
    { u: u1, v: 0.9 },
    { u: u0, v: 0.9 },
  ],
});

describe('joinCoverage', () => {
  const joinedOf = (before: number[], next: number[], join: Join) => {
    const out = Float32Array.from(before);
    joinCoverage(out, Float32Array.from(next), join);
    return out;
  };

  it('stays between 0 and 1, and cut undoes add where the pass is full', () => {
    fc.assert(
      fc.property(fraction, fraction, (a, b) => {
        for (const join of ['add', 'subtract', 'intersect'] as const) {
          const [joined] = joinedOf([a], [b], join);
          expect(joined).toBeGreaterThanOrEqual(0);
          expect(joined).toBeLessThanOrEqual(1 + 1e-6);
        }
        expect(joinedOf([...joinedOf([a], [1], 'add')], [1], 'subtract')).toEqual(Float32Array.of(0));
      }),
    );
  });
});

describe('outlineRow', () => {
  const areaOf = (points: { u: number; v: number }[], region: Region = WHOLE) => {
    const row = new Float32Array(region.width);
    let sum = 0;
    for (let y = 0; y < region.height; y++) {
      outlineRow(row, points, region, y);
      sum += row.reduce((a, b) => a + b, 0);
    }
    return sum;
  };

  it('covers the area of a triangle, also where it reaches out of the picture', () => {
    const triangle = [
      { u: 0.1, v: 0.1 },
      { u: 0.9, v: 0.1 },
      { u: 0.1, v: 0.9 },
    ];
    expect(areaOf(triangle)).toBeCloseTo((0.8 * WIDTH * 0.8 * HEIGHT) / 2, 0);
    const out = triangle.map(({ u, v }) => ({ u: u - 0.5, v }));
    expect(areaOf(out)).toBeLessThan(areaOf(triangle));
    expect(areaOf(out)).toBeGreaterThan(0);
  });

  it('encloses nothing by two points, and half of a bow tie by crossing itself', () => {
    expect(
      areaOf([
        { u: 0, v: 0 },
        { u: 1, v: 1 },
      ]),
    ).toBe(0);
    const bow = [
      { u: 0, v: 0 },
      { u: 1, v: 1 },
      { u: 1, v: 0 },
      { u: 0, v: 1 },
    ];
    expect(areaOf(bow) / (WIDTH * HEIGHT)).toBeCloseTo(0.5, 1);
  });

  it('bears ten thousand points', () => {
    const round = Array.from({ length: 10_000 }, (_, i) => ({
      u: 0.5 + 0.3 * Math.cos((i * 2 * Math.PI) / 10_000),
      v: 0.5 + 0.45 * Math.sin((i * 2 * Math.PI) / 10_000),
    }));
    expect(areaOf(round) / (WIDTH * HEIGHT)).toBeCloseTo(Math.PI * 0.3 * 0.45, 2);
  });
});

describe('matteCoverage', () => {
  it('adds, cuts and meets in order', () => {
    const at = cover([
      rect('a', 'add', 0.1, 0.6),
      rect('b', 'subtract', 0.3, 0.4),
      rect('c', 'intersect', 0.2, 0.9),
    ]);
    expect([at(0.15, 0.5), at(0.25, 0.5), at(0.35, 0.5), at(0.5, 0.5), at(0.8, 0.5)]).toEqual([
      0, 1, 0, 1, 0,
    ]);
  });

  it('begins from all where the first pass cuts', () => {
    const at = cover([rect('a', 'subtract', 0.1, 0.6)]);
    expect([at(0.3, 0.5), at(0.8, 0.5)]).toEqual([0, 1]);
  });

  it('keys tones with soft shoulders', () => {
    const tone = srgb.encode(0.5);
    const at = cover([
      { id: 'a', join: 'add', kind: 'tone', low: tone - 0.02, high: tone + 0.02, soft: 0.1 },
    ]);
    expect([at(0.2, 0.5), at(0.8, 0.5)]).toEqual([0, 1]);
    expect(toneCoverage(0.25, 0.3, 0.5, 0.1)).toBeCloseTo(0.5, 6);
    expect(toneCoverage(0.55, 0.3, 0.5, 0.1)).toBeCloseTo(0.5, 6);
  });

  it('keys colours, in sun and shade alike', () => {
    const pass: ColorPass = {
      id: 'a',
      join: 'add',
      kind: 'colour',
      color: [2, 0.6, 0.4],
      reach: 0.05,
      soft: 0.05,
    };
    const found = (left: Rgb, right: Rgb) => {
      const plate = halves(left, right);
      const lines = new Map([['a', findColor(plate, pass)]]);
      return cover([pass], plate, { ...NOTHING, found: { width: WIDTH, height: HEIGHT, lines } });
    };
    const at = found([0.1, 0.03, 0.02], [0.5, 0.15, 0.1]);
    expect(at(0.2, 0.5)).toBeGreaterThan(0.99);
    expect(at(0.8, 0.5)).toBeGreaterThan(0.99);
    expect(found([0.1, 0.1, 0.4], [0.2, 0.2, 0.2])(0.2, 0.5)).toBeLessThan(0.01);
  });

  it('finds what hangs together with a place, its edge at a larger size too', () => {
    const plate = halves([0.1, 0.2, 0.6], [0.5, 0.3, 0.1]);
    const pass: AreaPass = {
      id: 'a',
      join: 'add',
      kind: 'area',
      at: { u: 0.2, v: 0.5 },
      tolerance: 0.1,
      connected: true,
    };
    const found = { width: WIDTH, height: HEIGHT, lines: new Map([['a', findArea(plate, pass)]]) };
    const inputs = { ...NOTHING, found };
    const at = cover([pass], plate, inputs);
    expect(at(0.1, 0.1)).toBeGreaterThan(0.95);
    expect(at(0.9, 0.9)).toBeLessThan(0.05);
    expect(cover([pass], plate)(0.1, 0.1)).toBe(0); // not looked for yet
  });
});

describe('rampCoverage', () => {
  const ramp = {
    id: 'a',
    join: 'add',
    kind: 'ramp',
    from: { u: 0.2, v: 0.5 },
    to: { u: 0.8, v: 0.5 },
  } as const;

  it('falls from one place to the other, and is level across', () => {
    const at = (u: number, v = 0.5) =>
      rampCoverage({ ...ramp, shape: 'straight', breadth: 1, soft: 1 }, u, v, 1.5);
    expect([at(0.1), at(0.2), at(0.8), at(0.9)]).toEqual([1, 1, 0, 0]);
    expect(at(0.5)).toBeCloseTo(0.5, 9);
    expect(at(0.5, 0.1)).toBeCloseTo(at(0.5, 0.9), 9);
  });

  it('is an ellipse when it is round, with one half axis to its end and the other across', () => {
    const round = { ...ramp, shape: 'round', to: { u: 0.4, v: 0.5 }, breadth: 0.5, soft: 0.2 } as const;
    const at = (u: number, v: number) => rampCoverage(round, u, v, 1.5);
    expect([at(0.2, 0.5), at(0.41, 0.5), at(0.2, 0.651)]).toEqual([1, 0, 0]);
    expect(at(0.39, 0.5)).toBeGreaterThan(0);
    expect(at(0.2, 0.64)).toBeGreaterThan(0);
  });

  it('tilts with the way to its end', () => {
    // Half axes of 0.2 down and 0.1 across, on a plate 1.5 times as wide as high.
    const tilted = { ...ramp, shape: 'round', to: { u: 0.2, v: 0.8 }, breadth: 0.5, soft: 0.1 } as const;
    const at = (u: number, v: number) => rampCoverage(tilted, u, v, 1.5);
    expect(at(0.2, 0.77)).toBeGreaterThan(0.9);
    expect(at(0.305, 0.5)).toBe(0);
    expect(at(0.28, 0.5)).toBe(1);
  });
});

describe('showCoverage', () => {
  it('tints, shows in grey, or cuts the picture out', () => {
    const shown = (view: 'tint' | 'grey' | 'cut') => {
      const rgba = new Uint8ClampedArray([100, 100, 100, 255, 100, 100, 100, 255]);
      showCoverage(rgba, Float32Array.of(1, 0), view);
      return [rgba[0], rgba[4]];
    };
    expect(shown('tint')[0]).toBeGreaterThan(150);
    expect(shown('tint')[1]).toBe(100);
    expect(shown('grey')).toEqual([255, 0]);
    expect(shown('cut')).toEqual([100, 18]);
  });
});
