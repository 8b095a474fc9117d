import { describe, expect, it } from 'vitest';
import { RANGES } from '../fields/ranges';
import { rowsOf, wholeRegion, type Region } from '../plane/region';
import { createSpikes } from './add-spikes';
import { findGlints, glintAt } from './find-glints';
import { GLINT_STRIDE, readGlint, writeGlints, type Glint } from './glint';
import { governedGlints, tinted } from './governed-glints';
import { addGrain, DEVIATES, fillDeviates } from './grain';
import { FIRST_LENS, type LensSettings } from './lens-schema';
import { spikesOf, spikeSpread, WAVES } from './spikes';
import { halved, spreadLight, veilBlurs, veilLight, veilShare } from './veil';

const SIDE = 400;
const WHOLE = wholeRegion(SIDE, SIDE);
const black = ({ width, height }: Pick<Region, 'width' | 'height'> = WHOLE, value = 0) => {
  const plane = () => new Float32Array(width * height).fill(value);
  return { width, height, r: plane(), g: plane(), b: plane() };
};
const sum = (plane: Float32Array) => plane.reduce((all, value) => all + value, 0);

const LOOK = { ...spikesOf(FIRST_LENS), thickness: 0.004, reach: 0.4, heart: 0 };
const glint = (values: Partial<Glint> = {}): Glint => ({
  ...{ u: 0.5, v: 0.5, r: 1, g: 1, b: 1, from: 'fixture' },
  ...values,
});
const lit = (look = LOOK, glints = [glint()], region = WHOLE, share = 1) => {
  const table = new Float32Array(GLINT_STRIDE * glints.length);
  const out = black(region);
  createSpikes(look, region.fullWidth)(out, table, writeGlints(table, glints), share, region);
  return out;
};

/** How many spikes a ring around the middle meets. */
function spikesOn({ g }: { g: Float32Array }, radius: number): number {
  const STEPS = 1440;
  const ring = Array.from({ length: STEPS }, (_, k) => {
    const angle = (2 * Math.PI * k) / STEPS;
    const [x, y] = [SIDE / 2 - 0.5 + radius * Math.cos(angle), SIDE / 2 - 0.5 + radius * Math.sin(angle)];
    return g[Math.round(y) * SIDE + Math.round(x)];
  });
  const half = 0.4 * Math.max(...ring);
  return ring.filter((value, k) => value > half && ring[(k + STEPS - 1) % STEPS] <= half).length;
}

describe('spikes', () => {
  it('are as many as an even number of blades, twice as many as an odd one, or as many as are said', () => {
    const of = (values: Partial<LensSettings>) => ({
      ...spikesOf({ ...FIRST_LENS, roundness: 0, ...values }),
      ...{ thickness: 0.002, reach: 0.4 },
    });
    expect(spikesOn(lit(of({ blades: 6 })), 90)).toBe(6);
    expect(spikesOn(lit(of({ blades: 8 })), 90)).toBe(8);
    expect(spikesOn(lit(of({ blades: 5 })), 90)).toBe(10);
    for (const number of [2, 3, 16, 24])
      expect(spikesOn(lit(of({ from: 'hand', number, turn: 17 })), 120)).toBe(number);
  });

  it('spread all of the light that goes into them, and of the heart its own', () => {
    const strong = [glint({ r: 4, g: 4, b: 4 })];
    const whole = sum(lit(LOOK, strong).g) / (SIDE * SIDE);
    expect(whole).toBeGreaterThan(3.9);
    expect(whole).toBeLessThan(4.02);
    const hearty = sum(lit({ ...LOOK, heart: 1 }, strong).g) / (SIDE * SIDE);
    expect(hearty / whole).toBeGreaterThan(1.3);
    const { along, reach } = spikeSpread(LOOK);
    let integral = 0;
    for (let k = 0; k < 4000; k++) integral += (along(((k + 0.5) / 4000) * reach) * reach) / 4000;
    expect(integral).toBeCloseTo(1, 3);
  });

  it('lie where their source does, to a tenth of a pixel', () => {
    for (const [dx, dy] of [
      [0, 0],
      [0.3, 0.7],
      [-0.45, 0.2],
    ]) {
      const { g } = lit(LOOK, [glint({ u: 0.5 + dx / SIDE, v: 0.5 + dy / SIDE })]);
      let [x, y] = [0, 0];
      g.forEach((value, i) => {
        x += value * ((i % SIDE) + 0.5);
        y += value * (Math.floor(i / SIDE) + 0.5);
      });
      expect(Math.abs(x / sum(g) - SIDE / 2 - dx)).toBeLessThan(0.1);
      expect(Math.abs(y / sum(g) - SIDE / 2 - dy)).toBeLessThan(0.1);
    }
  });

  it('go with the light of their source, and reach less far as it is dimmed', () => {
    const [full, half] = [lit().g, lit(LOOK, [glint()], WHOLE, 0.5).g];
    const reach = (plane: Float32Array) => plane.reduce((count, value) => count + (value > 0 ? 1 : 0), 0);
    full.forEach((value, i) => half[i] > 0 && expect(half[i]).toBeCloseTo(value / 2, 3));
    const faint = lit(LOOK, [glint()], WHOLE, 1e-6).g;
    expect(reach(faint)).toBeLessThan(0.5 * reach(full));
  });

  it('reach farther in red, and have their source’s colour', () => {
    const out = lit({ ...LOOK, number: 2, turn: 0 });
    const end = Math.floor(SIDE / 2) * SIDE + SIDE / 2 + Math.round(LOOK.reach * SIDE * WAVES[1]) - 2;
    expect(out.r[end]).toBeGreaterThan(out.b[end]);
    const green = lit(LOOK, [glint({ r: 0, b: 0 })]);
    expect(sum(green.r) + sum(green.b)).toBe(0);
  });

  it('reach in from a source outside the picture', () => {
    const { g } = lit({ ...LOOK, number: 8, turn: 0 }, [glint({ u: -0.02, g: 5 })]);
    expect(g[(SIDE / 2) * SIDE + 10]).toBeGreaterThan(0);
  });

  it('are the same in every band of a picture', () => {
    const sources = [glint({ u: 0.31, v: 0.502 }), glint({ u: 0.7, v: 0.23, b: 3 })];
    const whole = lit({ ...LOOK, heart: 1 }, sources);
    for (const [from, count] of [
      [0, 16],
      [197, 9],
      [300, 100],
    ]) {
      const band = lit({ ...LOOK, heart: 1 }, sources, rowsOf(WHOLE, from, count));
      expect([...band.g]).toEqual([...whole.g.subarray(from * SIDE, (from + count) * SIDE)]);
    }
  });

  it('of rounder blades are shorter and thicker', () => {
    const [straight, round] = [0, 1].map((roundness) => spikesOf({ ...FIRST_LENS, roundness }));
    expect(round.reach).toBeLessThan(0.5 * straight.reach);
    expect(round.thickness).toBeGreaterThan(2 * straight.thickness);
  });
});

describe('the veil', () => {
  const veiled = (light: ReturnType<typeof black>, reach = 0.1) => {
    const out = black(light);
    veilLight(out, light, reach, [light.r.slice(), light.r.slice()]);
    return out;
  };

  it('leaves an even picture as it is, and keeps the light of a lamp', () => {
    const even = veiled(black({ width: 120, height: 80 }, 0.4));
    for (const value of even.g) expect(value).toBeCloseTo(0.4, 5);
    const lamp = black({ width: 301, height: 301 });
    lamp.g[150 * 301 + 150] = 900;
    expect(sum(veiled(lamp, 0.06).g)).toBeCloseTo(900, 0);
  });

  it('falls off around a lamp as glare does', () => {
    const lamp = black({ width: 401, height: 401 });
    lamp.g[200 * 401 + 200] = 1;
    const { g } = veiled(lamp, 0.3);
    const glare = (degrees: number) => 10 / degrees ** 3 + 5 / degrees ** 2;
    const at = (fraction: number) => g[200 * 401 + 200 + Math.round(fraction * 401)];
    // From one and a half degrees to ten of the fifty that a picture is wide.
    for (const [near, far] of [
      [0.03, 0.06],
      [0.06, 0.12],
      [0.1, 0.2],
    ]) {
      const expected = glare(50 * near) / glare(50 * far);
      expect(at(near) / at(far) / expected).toBeGreaterThan(0.65);
      expect(at(near) / at(far) / expected).toBeLessThan(1.5);
    }
  });

  it('has shares that add up to all, and never spreads more than half', () => {
    for (const reach of [0.02, 0.12, 0.6])
      expect(veilBlurs(reach).reduce((all, { share }) => all + share, 0)).toBeCloseTo(1, 12);
    expect(veilShare(0)).toBe(0);
    expect(veilShare(1000)).toBe(0.5);
  });

  it('is laid over a picture of any size, in any band of it', () => {
    const light = black({ width: 64, height: 48 }, 0.2);
    const glow = {
      ...black({ width: 8, height: 6 }),
      g: Float32Array.from({ length: 48 }, (_, i) => i / 48),
    };
    const region = wholeRegion(64, 48);
    const all = black(region);
    spreadLight(all, light, glow, 0.25, region);
    const part = rowsOf(region, 16, 16);
    const band = black(part);
    const own = { ...light, height: 16, g: light.g.subarray(0, 64 * 16) };
    spreadLight(band, own, glow, 0.25, part);
    expect([...band.g]).toEqual([...all.g.subarray(16 * 64, 32 * 64)]);
    expect(all.r[0]).toBeCloseTo(0.15, 6);
    spreadLight(all, light, undefined, 0, region);
    expect(all.g[100]).toBeCloseTo(0.2, 6);
    expect(sum(halved(black({ width: 5, height: 3 }, 1)).r)).toBe(6);
  });
});

describe('grain', () => {
  const deviates = new Float32Array(DEVIATES);
  fillDeviates(deviates);
  const grainy = (
    value: number,
    grain: Partial<LensSettings['grain']> = {},
    region = wholeRegion(1500, 40),
  ) => {
    const light = black(region, value);
    addGrain(light, { ...FIRST_LENS.grain, iso: 6400, size: 1, ...grain }, deviates, region);
    return light;
  };
  const deviation = (plane: Float32Array) => {
    const mean = sum(plane) / plane.length;
    return Math.sqrt(plane.reduce((all, value) => all + (value - mean) ** 2, 0) / plane.length);
  };

  it('has the noise of so many electrons, averaged over the sensor’s pixels in each of the picture', () => {
    const white = (40_000 * 100) / 6400;
    const expected = (value: number) => (1500 / 6000) * Math.sqrt(value / white + (3 / white) ** 2);
    for (const value of [0.3, 1]) expect(deviation(grainy(value).g) / expected(value)).toBeCloseTo(1, 1);
    expect(deviation(grainy(1, { iso: 400 }).g)).toBeCloseTo(deviation(grainy(1).g) / 4, 3);
  });

  it('shows more in the dark than in the light, against what is there', () => {
    expect(deviation(grainy(0.05).g) / 0.05).toBeGreaterThan(3 * (deviation(grainy(1).g) / 1));
  });

  it('looks the same at every size: a large picture’s, averaged, is a small one’s', () => {
    const large = grainy(0.5, {}, wholeRegion(3000, 80)).g;
    const small = grainy(0.5, {}, wholeRegion(1500, 40)).g;
    const averaged = small.map((_, i) => {
      const at = 2 * Math.floor(i / 1500) * 3000 + 2 * (i % 1500);
      return (large[at] + large[at + 1] + large[at + 3000] + large[at + 3001]) / 4;
    });
    expect(deviation(averaged) / deviation(small)).toBeCloseTo(1, 1);
  });

  it('is grey or coloured, coarse or fine, and the same in every band', () => {
    const grey = grainy(0.4, { color: 0 });
    expect([...grey.r]).toEqual([...grey.g]);
    const colored = grainy(0.4, { color: 1 });
    expect([...colored.r]).not.toEqual([...colored.g]);
    const region = wholeRegion(6000, 24);
    const coarse = grainy(0.4, { size: 4 }, region).g;
    const neighbours = (plane: Float32Array) => {
      const step = plane.subarray(1).map((value, i) => value - plane[i]);
      return deviation(step) / deviation(plane);
    };
    expect(neighbours(coarse)).toBeLessThan(0.7 * neighbours(grainy(0.4, {}, region).g));
    const band = grainy(0.4, { size: 4 }, rowsOf(region, 7, 5)).g;
    expect([...band]).toEqual([...coarse.subarray(7 * 6000, 12 * 6000)]);
    expect([...grainy(0.4, { seed: 2 }).g]).not.toEqual([...grainy(0.4).g]);
    for (const value of grainy(0, { iso: 25600 }).g) expect(value).toBeGreaterThanOrEqual(0);
  });
});

describe('sources', () => {
  const [W, H] = [400, 267];
  const night = () => black({ width: W, height: H }, 0.01);
  const paint = (
    light: ReturnType<typeof night>,
    left: number,
    top: number,
    wide: number,
    high: number,
    value = 1,
  ) => {
    for (let y = top; y < top + high; y++)
      for (let x = left; x < left + wide; x++) light.g[y * W + x] = value;
    return light;
  };

  it('that burn in the picture are found where they are, with their colour', () => {
    const [found, ...others] = findGlints(paint(night(), 100, 50, 4, 4));
    expect(others).toHaveLength(0);
    expect(found.u).toBeCloseTo(102 / W, 4);
    expect(found.v).toBeCloseTo(52 / H, 4);
    expect(found.g).toBeGreaterThan(20 * found.r);
  });

  it('are not lettering, panes, what is long, what is dim, nor a white picture', () => {
    const letters = night();
    for (let k = 0; k < 8; k++) paint(letters, 100 + 5 * k, 80, 3, 4);
    expect(findGlints(letters)).toHaveLength(0);
    expect(findGlints(paint(night(), 100, 50, 30, 40))).toHaveLength(0);
    expect(findGlints(paint(night(), 100, 50, 40, 3))).toHaveLength(0);
    expect(findGlints(paint(night(), 100, 50, 4, 4, 0.1))).toHaveLength(0);
    expect(findGlints(black({ width: W, height: H }, 1))).toHaveLength(0);
  });

  it('two of them stay two', () => {
    expect(findGlints(paint(paint(night(), 100, 50, 3, 3), 106, 50, 3, 3))).toHaveLength(2);
  });

  it('that are said take the light of their place, and none where it is dark', () => {
    const light = paint(night(), 100, 50, 4, 4);
    expect(glintAt(light, 102 / W, 52 / H).g).toBeGreaterThan(1e-3);
    expect(glintAt(light, 0.8, 0.8)).toMatchObject({ r: 0, g: 0, b: 0 });
    expect(glintAt(light, -0.5, 2)).toMatchObject({ r: 0, g: 0, b: 0 });
  });

  const point = (u: number, v: number, stops: number) => ({ id: `${u} ${v}`, at: { u, v }, stops });
  const OFF = RANGES.level.min;
  const governed = (...points: ReturnType<typeof point>[]) =>
    governedGlints([glint({ g: 8 })], points, 1.5, ({ at }) => glint({ ...at, g: 2, from: 'said' }));

  it('are made stronger, taken away, parted and added by what is said of places', () => {
    expect(governed()).toHaveLength(1);
    expect(governed(point(0.5, 0.5, 1))[0].g).toBe(16);
    expect(governed(point(0.505, 0.5, OFF))).toHaveLength(0);
    const parted = governed(point(0.5, 0.5, 0), point(0.508, 0.5, 0));
    expect(parted.map(({ u, g }) => [u, g])).toEqual([
      [0.5, 4],
      [0.508, 4],
    ]);
    // One of the two is taken away: the other is whole again.
    expect(governed(point(0.5, 0.5, 0), point(0.508, 0.5, OFF))[0].g).toBe(8);
    expect(governed(point(0.2, 0.2, -1))[1]).toMatchObject({ u: 0.2, v: 0.2, g: 1, from: 'said' });
    expect(governed(point(0.2, 0.2, OFF))).toHaveLength(1);
  });

  it('take one colour, and keep their luminance', () => {
    const gel: LensSettings['gel'] = { from: 'picture', kelvin: 4000, color: [0.2, 1, 3] };
    const own = glint({ r: 3, g: 1, b: 0.2 });
    const blue = tinted(own, { tint: 1, gel });
    expect(blue.b).toBeGreaterThan(blue.r);
    const luminance = ({ r, g, b }: Glint) => 0.2126 * r + 0.7152 * g + 0.0722 * b;
    expect(luminance(blue)).toBeCloseTo(luminance(own), 6);
    expect(tinted(own, { tint: 0, gel })).toBe(own);
  });

  it('come out of a table as they went in', () => {
    const table = new Float32Array(2 * GLINT_STRIDE);
    const all = [glint({ u: 0.25 }), glint({ from: 'found' }), glint({ from: 'said' })];
    expect(writeGlints(table, all)).toBe(2);
    expect([0, 1].map((k) => readGlint(table, k))).toEqual(all.slice(0, 2));
  });
});
