import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { cutBox } from '../plane/box';
import { dilate } from '../plane/dilate';
import { colorGuidedFilter } from '../plane/color-guided-filter';
import { wholeRegion, type Region } from '../plane/region';
import { flattenOutline, roundPoint } from '../geometry/flatten-outline';
import { isCircular, isMadeOf } from './inner-mattes';
import { dabsOf, paintCoverage } from './paint-coverage';
import type { PaintStroke, Pass } from './pass';
import type { OutlinePoint } from '../geometry/flatten-outline';
import { findEdge, followEdge, refineWidth } from './refine-edge';
import { edgeMargin, soften, softenPart, withMargin } from './soften';
import { pressureFromSpeed } from './stroke-pressure';

const noise = (i: number) => {
  const x = Math.sin(i * 12.9898) * 43758.5453;
  return x - Math.floor(x);
};

const largest = (a: Float32Array, b: Float32Array) =>
  a.reduce((most, value, i) => Math.max(most, Math.abs(value - (b[i] ?? 0))), 0);

describe('flattenOutline', () => {
  const circle = (k: number): OutlinePoint[] =>
    [0, 1, 2, 3].map((quarter) => {
      const [c, s] = [Math.cos((quarter * Math.PI) / 2), Math.sin((quarter * Math.PI) / 2)];
      return {
        u: 0.5 + 0.3 * c,
        v: 0.5 + 0.3 * s,
        in: { u: 0.3 * k * s, v: -0.3 * k * c },
        out: { u: -0.3 * k * s, v: 0.3 * k * c },
      };
    });

  it('draws the circle that four cubic pieces come near', () => {
    const lines = flattenOutline(circle(0.5522847));
    expect(lines.length).toBeGreaterThan(40);
    lines.forEach(({ u, v }) => expect(Math.hypot(u - 0.5, v - 0.5)).toBeCloseTo(0.3, 3));
  });

  it('leaves corners as they are', () => {
    const corners = circle(0.5).map(({ u, v }) => ({ u, v }));
    expect(flattenOutline(corners)).toEqual(corners);
  });

  it('makes a point round along the line between its neighbours, and a corner again', () => {
    const points = [
      { u: 0.2, v: 0.5 },
      { u: 0.5, v: 0.2 },
      { u: 0.8, v: 0.5 },
    ];
    const round = roundPoint(points, 1, 1);
    expect(round.out!.v).toBeCloseTo(0, 12);
    expect(round.out!.u).toBeCloseTo(-round.in!.u, 12);
    expect(round.out!.u).toBeCloseTo(Math.hypot(0.3, 0.3) / 3, 9);
    expect(roundPoint([points[0], round, points[2]], 1, 0)).toEqual(points[1]);
  });
});

describe('paintCoverage', () => {
  const stroke = (more: Partial<PaintStroke> = {}): PaintStroke => ({
    path: [0.2, 0.5, 1, 0.8, 0.5, 1],
    size: 0.06,
    soft: 0,
    flow: 1,
    strength: 1,
    erase: false,
    pressure: 'none',
    ...more,
  });
  const paint = (
    strokes: PaintStroke[],
    width = 150,
    region: Region = wholeRegion(width, (width * 2) / 3),
  ) => {
    const out = new Float32Array(region.width * region.height);
    paintCoverage(out, out.slice(), strokes, region);
    return out;
  };
  const at = (out: Float32Array, u: number, v: number, width = 150) =>
    out[Math.floor((v * width * 2) / 3) * width + Math.floor(u * width)];

  it('covers a line as wide as the brush, to its round ends', () => {
    const out = paint([stroke()]);
    expect(at(out, 0.5, 0.5)).toBe(1);
    expect(at(out, 0.5, 0.5 + 0.05 * 1.5)).toBe(1);
    expect(at(out, 0.5, 0.5 + 0.07 * 1.5)).toBe(0);
    expect(at(out, 0.13, 0.5)).toBe(0);
  });

  it('is the same picture at another size', () => {
    const soft = stroke({ soft: 0.8, flow: 0.3 });
    const [small, large] = [paint([soft]), paint([soft], 600)];
    for (const [u, v] of [
      [0.5, 0.5],
      [0.3, 0.53],
      [0.7, 0.55],
    ])
      expect(Math.abs(at(small, u, v) - at(large, u, v, 600))).toBeLessThan(0.08);
  });

  it('reaches its strength and no more, and is taken away by an eraser', () => {
    const half = stroke({ strength: 0.5 });
    expect(at(paint([half]), 0.5, 0.5)).toBeCloseTo(0.5, 5);
    expect(at(paint([half, half]), 0.5, 0.5)).toBeCloseTo(0.75, 5);
    expect(at(paint([stroke(), stroke({ erase: true })]), 0.5, 0.5)).toBeCloseTo(0, 5);
    expect(at(paint([stroke(), stroke({ erase: true, strength: 0.4 })]), 0.5, 0.5)).toBeCloseTo(0.6, 5);
  });

  it('takes flow and size from the pressure where it shall', () => {
    const light = [0.2, 0.5, 0.2, 0.8, 0.5, 0.2];
    const [flow] = dabsOf(stroke({ path: light, pressure: 'flow' }), 1.5);
    expect(flow).toMatchObject({ radius: 0.06, flow: 0.2 });
    const [size] = dabsOf(stroke({ path: light, pressure: 'size' }), 1.5);
    expect(size.flow).toBe(1);
    expect(size.radius).toBeLessThan(0.03);
    expect(dabsOf(stroke({ path: light }), 1.5)[0]).toMatchObject({ radius: 0.06, flow: 1 });
  });

  it('lays dabs evenly, wherever the path has its places', () => {
    const straight = dabsOf(stroke(), 1.5);
    const broken = dabsOf(stroke({ path: [0.2, 0.5, 1, 0.43, 0.5, 1, 0.44, 0.5, 1, 0.8, 0.5, 1] }), 1.5);
    expect(broken.map(({ u }) => u.toFixed(6))).toEqual(straight.map(({ u }) => u.toFixed(6)));
  });

  it('makes nothing but coverages of any stroke, and bands of it that fit together', () => {
    const place = fc.double({ min: -4, max: 5, noNaN: true });
    const share = fc.double({ min: 0, max: 1, noNaN: true });
    const any = fc.record({
      path: fc.array(fc.tuple(place, place, share), { maxLength: 6 }).map((places) => places.flat()),
      size: fc.double({ min: 0.0005, max: 0.2, noNaN: true }),
      soft: share,
      flow: share,
      strength: share,
      erase: fc.boolean(),
      pressure: fc.constantFrom('none', 'flow', 'size', 'both'),
    }) as fc.Arbitrary<PaintStroke>;
    fc.assert(
      fc.property(fc.array(any, { maxLength: 3 }), (strokes) => {
        const whole = paint(strokes, 30);
        whole.forEach((value) => expect(value >= 0 && value <= 1 + 1e-6).toBe(true));
        const lower = { ...wholeRegion(30, 20), top: 11, height: 9 };
        expect(paint(strokes, 30, lower)).toEqual(whole.slice(11 * 30));
      }),
      { numRuns: 40 },
    );
  });
});

describe('pressureFromSpeed', () => {
  it('is firm when slow, light when fast, and follows without a jump', () => {
    let [slow, fast] = [0.5, 0.5];
    for (let i = 0; i < 40; i++) {
      slow = pressureFromSpeed(slow, 0.0005, 0.016);
      const next = pressureFromSpeed(fast, 0.05, 0.016);
      expect(Math.abs(next - fast)).toBeLessThan(0.2);
      fast = next;
    }
    expect(slow).toBeGreaterThan(0.9);
    expect(fast).toBeLessThan(0.25);
    expect(Number.isFinite(pressureFromSpeed(0.5, 0.1, 0))).toBe(true);
  });
});

describe('dilate', () => {
  it('is the maximum over a square or an octagon around each pixel', () => {
    const [width, height] = [31, 23];
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 12 }), fc.integer(), (radius, seed) => {
        const source = Float32Array.from({ length: width * height }, (_, i) =>
          noise(i + seed) > 0.97 ? noise(2 * i + seed) : 0,
        );
        const out = source.slice();
        dilate(out, width, height, radius);
        for (let i = 0; i < out.length; i++) {
          const [x, y] = [i % width, Math.floor(i / width)];
          let [inner, outer] = [0, 0];
          source.forEach((value, k) => {
            const [dx, dy] = [Math.abs((k % width) - x), Math.abs(Math.floor(k / width) - y)];
            if (Math.hypot(dx, dy) <= 0.95 * radius - 1.1) inner = Math.max(inner, value);
            if (Math.max(dx, dy) <= radius) outer = Math.max(outer, value);
          });
          expect(out[i]).toBeGreaterThanOrEqual(inner);
          expect(out[i]).toBeLessThanOrEqual(outer);
        }
      }),
      { numRuns: 25 },
    );
  });

  it('moves a straight edge by its radius, in parts of a pixel too, upright and slanting', () => {
    const [width, height] = [61, 61];
    const edge = (across: (x: number, y: number) => number, radius: number) => {
      const data = Float32Array.from({ length: width * height }, (_, i) =>
        Math.min(1, Math.max(0, 0.5 - across(i % width, Math.floor(i / width)))),
      );
      const before = data.reduce((sum, value) => sum + value, 0);
      dilate(data, width, height, radius);
      return (data.reduce((sum, value) => sum + value, 0) - before) / height;
    };
    expect(edge((x) => x - 20, 5)).toBeCloseTo(5, 5);
    expect(edge((x) => x - 20, 5.4)).toBeCloseTo(5.4, 4);
    // Along a row, an edge at 45 degrees is the root of two further off.
    expect(edge((x, y) => (x - y) * Math.SQRT1_2, 8) / Math.SQRT2 / 8).toBeCloseTo(1, 0);
  });
});

describe('soften', () => {
  const region = wholeRegion(80, 50);
  const left = () => Float32Array.from({ length: 4000 }, (_, i) => (i % 80 < 40 ? 1 : 0));
  const width = (data: Float32Array) => data.slice(80 * 25, 80 * 26).reduce((sum, value) => sum + value, 0);

  it('grows, shrinks, and softens about the edge', () => {
    for (const grow of [3, -3, 0.5]) {
      const data = left();
      soften(data, region, { grow, feather: 0 });
      expect(width(data)).toBeCloseTo(40 + grow, 4);
    }
    const data = left();
    soften(data, region, { grow: 0, feather: 3 });
    expect(width(data)).toBeCloseTo(40, 3);
    expect(data[80 * 25 + 39] + data[80 * 25 + 40]).toBeCloseTo(1, 4);
    expect(data[80 * 25 + 36]).toBeLessThan(1);
  });

  it('makes of a part, square by square, what it makes of the whole', () => {
    const [wide, high] = [620, 90];
    const all = wholeRegion(wide, high);
    // Noise in the middle, nothing to its left and everything to its right.
    const source = Float32Array.from({ length: wide * high }, (_, i) => {
      const x = i % wide;
      return x < 200 ? 0 : x > 340 ? 1 : noise(Math.floor(i / 7));
    });
    for (const work of [
      { grow: 2.5, feather: 4 },
      { grow: -3, feather: 0 },
    ]) {
      const whole = source.slice();
      soften(whole, all, work);
      const part = { ...all, left: 20, top: 15, width: 590, height: 60 };
      const from = withMargin(part, edgeMargin(work));
      const held = {
        left: from.left,
        top: from.top,
        right: from.left + from.width,
        bottom: from.top + from.height,
      };
      const out = new Float32Array(part.width * part.height);
      softenPart(out, part, cutBox(source, wide, held), from, work);
      const inner = { left: 20, top: 15, right: 610, bottom: 75 };
      expect(largest(out, cutBox(whole, wide, inner))).toBeLessThan(1e-3);
    }
  });
});

describe('refining', () => {
  const [width, height] = [120, 80];
  const size = width * height;
  const truth = Float32Array.from({ length: size }, (_, i) =>
    Math.min(1, Math.max(0, 0.5 - ((i % width) - 60) / 12)),
  );
  const mixed = (thing: number, behind: number) =>
    truth.map((share, i) => share * thing + (1 - share) * behind + 0.01 * noise(i));
  const plate = { width, height, r: mixed(0.1, 0.4), g: mixed(0.06, 0.5), b: mixed(0.05, 0.8) };
  const hard = truth.map((share) => (share > 0.5 ? 1 : 0));
  const planes = () => new Float32Array(size);
  const error = (coverage: Float32Array) =>
    coverage.reduce((sum, value, i) => sum + Math.abs(value - truth[i]), 0) / size;

  it('gives back what a guide is a line of', () => {
    const lines = { r: planes(), g: planes(), b: planes(), offset: planes() };
    const source = plate.r.map((r, i) => 0.5 * r - 0.3 * plate.b[i] + 0.2);
    colorGuidedFilter(lines, plate, source, 6, 1e-9);
    for (let i = 0; i < size; i += 97) {
      const value =
        lines.r[i] * plate.r[i] + lines.g[i] * plate.g[i] + lines.b[i] * plate.b[i] + lines.offset[i];
      expect(value).toBeCloseTo(source[i], 2);
    }
  });

  it('halves the error of a hard edge on a soft one, also from lines of a small copy', () => {
    const refined = planes();
    const lines = { r: planes(), g: planes(), b: planes(), offset: planes() };
    findEdge(lines, plate, hard, 0.08);
    followEdge(refined, lines, { width, height }, plate, wholeRegion(width, height));
    expect(error(refined)).toBeLessThan(0.5 * error(hard));
    refined.forEach((value) => expect(value >= 0 && value <= 1).toBe(true));
  });

  it('filters only near edges, band by band, as if it were all', () => {
    const [wide, high] = [240, 100];
    const inside = (i: number) => Math.hypot((i % wide) - 70, Math.floor(i / wide) - 40) < 20 + 4 * noise(i);
    const coverage = Float32Array.from({ length: wide * high }, (_, i) => (inside(i) ? 1 : 0));
    const tone = (share: number) => coverage.map((value, i) => 0.2 + share * value + 0.02 * noise(7 * i));
    const guide = { width: wide, height: high, r: tone(0.5), g: tone(0.3), b: tone(0.1) };
    const lines = () => {
      const [r, g, b, offset] = [0, 1, 2, 3].map(() => new Float32Array(wide * high).fill(9));
      return { r, g, b, offset };
    };
    const [whole, banded, all] = [lines(), lines(), lines()];
    findEdge(whole, guide, coverage, 3 / wide);
    for (let from = 0; from < high; from += 13)
      findEdge(banded, guide, coverage, 3 / wide, { from, to: Math.min(high, from + 13) });
    const root = (plane: Float32Array) => plane.map(Math.sqrt);
    const seen = { ...guide, r: root(guide.r), g: root(guide.g), b: root(guide.b) };
    colorGuidedFilter(all, seen, coverage, 3, 1e-4);
    for (const name of ['r', 'g', 'b', 'offset'] as const) {
      expect(largest(whole[name], all[name])).toBeLessThan(1e-3);
      expect(largest(banded[name], whole[name])).toBeLessThan(1e-3);
    }
    expect(whole.r[40 * wide + 200]).toBe(0);
    expect(largest(all.r, planes())).toBeGreaterThan(0.5);
  });

  it('works on a copy that shows its window, no larger than the plate', () => {
    expect(refineWidth(0.005, 6000)).toBe(800);
    expect(refineWidth(0.0001, 6000)).toBe(1600);
    expect(refineWidth(0.03, 6000)).toBe(400);
    expect(refineWidth(0.005, 300)).toBe(300);
  });
});

describe('mattes made of mattes', () => {
  const made = (id: string, ...of: string[]) => ({
    id,
    passes: of.map((matte, i): Pass => ({ id: `${id}${i}`, join: 'add', kind: 'matte', matte })),
  });

  it('finds what is made of what, however deep, and circles', () => {
    const chain = [made('a', 'b'), made('b', 'c'), made('c')];
    expect(isMadeOf(chain, 'a', 'c')).toBe(true);
    expect(isMadeOf(chain, 'c', 'a')).toBe(false);
    expect(isCircular(chain)).toBe(false);
    expect(isCircular([made('a', 'b'), made('b', 'c'), made('c', 'a')])).toBe(true);
    expect(isCircular([made('a', 'a')])).toBe(true);
    expect(isCircular([made('x', 'a'), made('a', 'b'), made('b', 'a')])).toBe(true);
  });
});
