import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { luminance } from '../color/luminance';
import type { Rgb } from '../color/rgb';
import { srgb } from '../color/srgb';
import { startingNight } from '../night/starting-night';
import type { Night } from '../scene/schema';
import { applyLut } from './apply-lut';
import { underCeiling } from './ceiling';
import { colorByTone } from './color-by-tone';
import { CubeFormatError, parseCube, type CubeLut } from './cube-lut';
import { gradeOf, gradeTables, GRADE_TABLES, isPlain } from './grade';
import { gradeColor } from './grade-color';
import { monotoneCurve } from './monotone-curve';
import { toneShape } from './tone-shape';

const fraction = fc.double({ min: 0, max: 1, noNaN: true });
const color = fc.tuple(fraction, fraction, fraction) as fc.Arbitrary<Rgb>;

describe('monotoneCurve', () => {
  it('goes through its points and is straight between two', () => {
    const curve = monotoneCurve([
      { x: 0.1, y: 0.2 },
      { x: 0.7, y: 0.8 },
    ]);
    expect(curve(0.4)).toBeCloseTo(0.5, 12);
    expect([curve(0), curve(0.1), curve(0.7), curve(1)]).toEqual([0.2, 0.2, 0.8, 0.8]);
  });

  it('has the slope of the parabola that its points lie on', () => {
    const curve = monotoneCurve([0, 0.25, 0.5, 0.75, 1].map((x) => ({ x, y: x * x })));
    const slope = (curve(0.5 + 1e-5) - curve(0.5 - 1e-5)) / 2e-5;
    expect(slope).toBeCloseTo(1, 3);
  });

  it('never overshoots, whatever the points', () => {
    fc.assert(
      fc.property(fc.array(fraction, { minLength: 2, maxLength: 9 }), fraction, (ys, t) => {
        const points = ys.map((y, i) => ({ x: i / (ys.length - 1), y }));
        const curve = monotoneCurve(points);
        const k = Math.min(points.length - 2, Math.floor(t * (points.length - 1)));
        const [low, high] = [points[k].y, points[k + 1].y].sort((a, b) => a - b);
        expect(curve(t)).toBeGreaterThanOrEqual(low - 1e-9);
        expect(curve(t)).toBeLessThanOrEqual(high + 1e-9);
      }),
    );
  });
});

describe('toneShape', () => {
  const rest = startingNight(0.5).shape;

  it('is the identity at rest', () => {
    fc.assert(
      fc.property(fraction, (tone) => {
        expect(toneShape(rest)(tone)).toBeCloseTo(tone, 12);
      }),
    );
  });

  it('stretches between the points and lifts the middle as a power', () => {
    const shape = toneShape({ ...rest, black: 0.2, white: 0.6, middle: 1 });
    expect([shape(0.1), shape(0.2), shape(0.6), shape(0.9)]).toEqual([0, 0, 1, 1]);
    expect(shape(0.3)).toBeCloseTo(0.5, 12); // a quarter of the way up, square root
  });
});

describe('underCeiling', () => {
  it('lands white on the ceiling, leaves the lower half alone and never turns back', () => {
    fc.assert(
      fc.property(fc.double({ min: 0.05, max: 1, noNaN: true }), fraction, fraction, (ceiling, a, b) => {
        expect(underCeiling(1, ceiling)).toBeCloseTo(ceiling, 6);
        expect(underCeiling(0.5 * ceiling * a, ceiling)).toBe(0.5 * ceiling * a);
        const [low, high] = [Math.min(a, b), Math.max(a, b)];
        expect(underCeiling(low, ceiling)).toBeLessThanOrEqual(underCeiling(high, ceiling) + 1e-12);
      }),
    );
  });
});

describe('colorByTone', () => {
  it('reads the strip between its stops, in any order, and holds the ends', () => {
    const read = colorByTone([
      { at: 0.8, color: [0.6, 0.7, 1] },
      { at: 0.2, color: [0, 0.1, 0.2] },
    ]);
    expect(read(0)).toEqual([0, 0.1, 0.2]);
    expect(read(0.5)[0]).toBeCloseTo(0.3, 12);
    expect(read(1)).toEqual([0.6, 0.7, 1]);
  });
});

/** A cube whose entries are a function of their place. */
function cubeOf(size: number, of: (color: Rgb) => Rgb): CubeLut {
  const data = new Float32Array(3 * size ** 3);
  for (let i = 0; i < size ** 3; i++) {
    const place: Rgb = [i % size, Math.floor(i / size) % size, Math.floor(i / size ** 2)];
    const [r, g, b] = place;
    data.set(of([r / (size - 1), g / (size - 1), b / (size - 1)]), 3 * i);
  }
  return { dimensions: 3, size, domainMin: [0, 0, 0], domainMax: [1, 1, 1], data, title: '' };
}

describe('look-up tables', () => {
  it('leave colours alone when they are the identity, cubes and curves', () => {
    const curves = parseCube('LUT_1D_SIZE 2\n0 0 0\n1 1 1\n');
    fc.assert(
      fc.property(color, (c) => {
        for (const lut of [cubeOf(5, (same) => same), curves])
          applyLut(lut, c).forEach((value, i) => expect(value).toBeCloseTo(c[i], 5));
      }),
    );
  });

  it('give any mixing of channels exactly, at and between the entries', () => {
    const mix = ([r, g, b]: Rgb): Rgb => [0.2 * r + 0.5 * g, 0.3 + 0.4 * b, r - 0.2 * g];
    fc.assert(
      fc.property(color, (c) => {
        applyLut(cubeOf(4, mix), c).forEach((value, i) => expect(value).toBeCloseTo(mix(c)[i], 5));
      }),
    );
  });

  it('walk the tetrahedron: the product of two channels is the smaller one between the corners', () => {
    const product = cubeOf(2, ([r, g]) => [r * g, 0, 0]);
    expect(applyLut(product, [0.3, 0.8, 0.5])[0]).toBeCloseTo(0.3, 6);
    expect(applyLut(product, [0.9, 0.4, 0])[0]).toBeCloseTo(0.4, 6);
  });

  it('keep to their domain', () => {
    const lut = parseCube('LUT_1D_SIZE 3\nDOMAIN_MIN 0.5 0 0\nDOMAIN_MAX 1 2 1\n0 0 0\n0.25 0.5 0.5\n1 1 1');
    const [r, g] = applyLut(lut, [0.75, 0.5, 0]);
    expect(r).toBeCloseTo(0.25, 6);
    expect(g).toBeCloseTo(0.25, 6);
    expect(applyLut(lut, [0.2, 9, 0])).toEqual([0, 1, 0]);
  });

  it('read comments, titles, unknown keywords and Windows lines', () => {
    const lut = parseCube(
      '\uFEFF# made up\r\nTITLE "Quay at dusk"\r\nLUT_IN_VIDEO_RANGE\r\nLUT_1D_SIZE 2\r\n\r\n0 0 0\r\n1e0 .5 1\r\n',
    );
    expect(lut.title).toBe('Quay at dusk');
    expect([...lut.data]).toEqual([0, 0, 0, 1, 0.5, 1]);
  });

  it.each([
    ['', 1, 'names no'],
    ['LUT_3D_SIZE 66', 1, '2 to 65'],
    ['LUT_3D_SIZE two', 1, 'whole number'],
    ['0 0 0', 1, 'before'],
    ['LUT_1D_SIZE 2\n0 0 0\n0 zero 0', 3, 'three numbers'],
    ['LUT_1D_SIZE 2\n0 0', 2, 'three numbers'],
    ['LUT_1D_SIZE 2\n0 0 NaN', 2, 'three numbers'],
    ['LUT_1D_SIZE 2\n0 0 0\n1 1 1\n2 2 2', 4, 'more than the 2'],
    ['LUT_3D_SIZE 2\n0 0 0\n1 1 1', 3, 'ends after 2 of 8'],
    ['LUT_1D_SIZE 2\nLUT_1D_SIZE 2', 2, 'second time'],
    ['LUT_1D_SIZE 2\nDOMAIN_MIN 1 1 1\n0 0 0\n1 1 1', 4, 'not under'],
  ])('refuse %j and name the line', (text, line, reason) => {
    expect(() => parseCube(text)).toThrow(CubeFormatError);
    expect(() => parseCube(text)).toThrow(`Line ${line}: `);
    expect(() => parseCube(text)).toThrow(reason);
  });
});

describe('gradeColor', () => {
  const run = (light: Rgb, night: Partial<Night>, lut?: CubeLut) => {
    const whole = { ...startingNight(0.5), ...night };
    const tables = new Float32Array(GRADE_TABLES.length);
    gradeTables(tables, whole);
    return gradeColor(light, gradeOf(whole), tables, lut);
  };
  const { shape, byTone, refit } = startingNight(0.5);

  it('is plain at rest, and then changes nothing', () => {
    expect(isPlain(startingNight(0.5))).toBe(true);
    fc.assert(
      fc.property(color, (c) => run(c, {}).forEach((value, i) => expect(value).toBeCloseTo(c[i], 4))),
    );
  });

  it('darkens on luminance without a shift of colour, and with one on the channels', () => {
    const light: Rgb = [0.5, 0.2, 0.1];
    const points = [
      { x: 0, y: 0 },
      { x: 0.5, y: 0.25 },
      { x: 1, y: 1 },
    ];
    const onLuminance = run(light, { shape: { ...shape, points } });
    const ratio = (c: Rgb) => c[0] / c[2];
    expect(ratio(onLuminance)).toBeCloseTo(ratio(light), 2);
    const tone = srgb.encode(luminance(light));
    expect(luminance(onLuminance)).toBeCloseTo(srgb.decode(monotoneCurve(points)(tone)), 3);
    const onColour = run(light, { shape: { ...shape, points, on: 'colour' } });
    expect(ratio(onColour)).toBeGreaterThan(1.2 * ratio(light));
  });

  it('lifts black as grey on luminance', () => {
    const points = [
      { x: 0, y: 0.2 },
      { x: 1, y: 1 },
    ];
    run([0, 0, 0], { shape: { ...shape, points } }).forEach((value) =>
      expect(value).toBeCloseTo(srgb.decode(0.2), 4),
    );
  });

  it('gives a tone its colour at full strength', () => {
    const grey = srgb.decode(0.34);
    const night = { byTone: { ...byTone, strength: 1 } };
    run([grey, grey, grey], night).forEach((value, c) =>
      expect(srgb.encode(value)).toBeCloseTo(byTone.stops[1].color[c], 2),
    );
  });

  it('refits the tones to what they occupy', () => {
    const at = (tone: number) =>
      srgb.encode(run([srgb.decode(tone), 0, 0], { refit: { ...refit, low: 0.1, high: 0.6 } })[0]);
    expect(at(0.1)).toBeCloseTo(0, 3);
    expect(at(0.35)).toBeCloseTo(0.5, 3);
    expect(at(0.6)).toBeCloseTo(1, 3);
  });

  it('mixes a look-up table in by its strength, in display codes', () => {
    const swap = cubeOf(2, ([r, g, b]) => [b, g, r]);
    const light: Rgb = [srgb.decode(0.8), 0, srgb.decode(0.2)];
    const lut = { asset: '0'.repeat(64), name: 'swap', strength: 0.5 };
    const [r, , b] = run(light, { lut }, swap);
    expect(srgb.encode(r)).toBeCloseTo(0.5, 3);
    expect(srgb.encode(b)).toBeCloseTo(0.5, 3);
  });

  it('never lets a channel over the ceiling, and keeps the hue', () => {
    const [r, g, b] = run([1, 0.5, 0.25], { shape: { ...shape, ceiling: 0.5 } }).map(srgb.encode);
    expect(r).toBeCloseTo(0.5, 3);
    expect(g / r).toBeCloseTo(srgb.encode(0.5), 2);
    expect(b / r).toBeCloseTo(srgb.encode(0.25), 2);
  });
});
