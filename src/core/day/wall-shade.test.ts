import { describe, expect, it } from 'vitest';
import { wholeRegion } from '../plane/region';
import { guessShade, type DayWall } from './guess-shade';
import { findWallShade, liftWalls, type WallShade } from './wall-shade';
import { tonesOf } from './wall-tones';

const [WIDTH, HEIGHT] = [90, 60];
const COUNT = WIDTH * HEIGHT;

const plane = (of: (x: number, y: number) => number) =>
  Float32Array.from({ length: COUNT }, (_, i) => of(i % WIDTH, Math.floor(i / WIDTH)));
const plateOf = (...channels: ((x: number, y: number) => number)[]) => {
  const [r, g, b] = channels.map(plane);
  return { width: WIDTH, height: HEIGHT, r, g, b };
};
const shadeOf = (): WallShade => ({
  ...{ width: WIDTH, height: HEIGHT },
  ...{ slope: new Float32Array(COUNT), offset: new Float32Array(COUNT) },
  ...{ stops: new Float32Array(COUNT), level: new Float32Array(COUNT) },
});

describe('tonesOf', () => {
  it('tells how many pixels each part has, and their median in stops', () => {
    const grey = (x: number) => (x < 30 ? 0.125 : x < 60 ? 0.5 : 1);
    const plate = plateOf(grey, grey, grey);
    const part = plane((x) => (x < 30 ? 1 : x < 60 ? 2 : 0));
    const [dark, light, none] = tonesOf(plate, part, 3);
    expect([dark.pixels, light.pixels, none.pixels]).toEqual([30 * HEIGHT, 30 * HEIGHT, 0]);
    expect(dark.level).toBeCloseTo(-3, 1);
    expect(light.level).toBeCloseTo(-1, 1);
    expect(none.level).toBeNaN();
  });
});

describe('a wall in the shade', () => {
  const STOPS = 2.5;
  const isWall = (x: number) => x < 45;
  const isSunny = (x: number, y: number) => x > 10 && x < 20 && y > 20 && y < 30;
  const grain = (x: number, y: number) => 1 + 0.1 * (((x * 7 + y * 3) % 5) / 5 - 0.4);
  // Sky light is bluer than the sun's: what it alone reaches is dark by more in red than in blue.
  const channel = (warmer: number) => (x: number, y: number) =>
    0.4 * grain(x, y) * (isWall(x) && !isSunny(x, y) ? 2 ** (-STOPS * (1 + warmer)) : 1);
  const plate = plateOf(channel(0.1), channel(0), channel(-0.1));
  const seen = Uint16Array.from(plane((x) => Number(isWall(x))));
  const lifted = () => {
    const shade = shadeOf();
    findWallShade(shade, plate, seen, [STOPS]);
    const out = plateOf(
      () => 0,
      () => 0,
      () => 0,
    );
    liftWalls(out, plate, shade, wholeRegion(WIDTH, HEIGHT));
    return out;
  };

  it('comes out as if the sun shone on it, grain and colour alike', () => {
    const out = lifted();
    for (const [x, y] of [
      [3, 5],
      [30, 40],
      [40, 55],
    ])
      for (const name of ['r', 'g', 'b'] as const)
        expect(out[name][y * WIDTH + x] / (0.4 * grain(x, y))).toBeCloseTo(1, 1);
  });

  it('leaves what is beside it, and where the sun falls on it all the same', () => {
    const out = lifted();
    for (const [x, y] of [
      [60, 5],
      [80, 50],
    ])
      expect(out.g[y * WIDTH + x]).toBe(plate.g[y * WIDTH + x]);
    expect(out.g[25 * WIDTH + 15] / plate.g[25 * WIDTH + 15]).toBeLessThan(2 ** (0.6 * STOPS));
  });

  it('keeps what is brighter brighter', () => {
    const shade = shadeOf();
    const ramp = plateOf(...[0, 0, 0].map(() => (x: number) => 0.001 * 2 ** (x / 8)));
    findWallShade(shade, plateOf(...[0, 0, 0].map(() => () => 0.01)), seen.fill(1), [STOPS]);
    liftWalls(ramp, ramp, shade, wholeRegion(WIDTH, HEIGHT));
    for (let x = 1; x < WIDTH; x++) expect(ramp.g[x]).toBeGreaterThan(ramp.g[x - 1]);
  });

  it('is the same in bands as in one piece', () => {
    const shade = shadeOf();
    findWallShade(shade, plate, seen, [STOPS]);
    const whole = lifted();
    for (const top of [0, 20, 40]) {
      const of = (data: Float32Array) => data.slice(top * WIDTH, (top + 20) * WIDTH);
      const band = { width: WIDTH, height: 20, r: of(plate.r), g: of(plate.g), b: of(plate.b) };
      liftWalls(band, band, shade, { ...wholeRegion(WIDTH, HEIGHT), top, height: 20 });
      expect(band.g).toEqual(of(whole.g));
    }
  });
});

describe('guessShade', () => {
  const wall = (level: number, facing: DayWall['facing'], area = 0.1): DayWall => ({ level, facing, area });
  const [LEFT, RIGHT, AHEAD] = [[1, 0] as const, [-1, 0] as const, [0, -1] as const];

  it('tells the dark side of a street, by about as much as the sun gives', () => {
    const [dark, lit, end] = guessShade([wall(-5, LEFT), wall(-2, RIGHT), wall(-2.4, AHEAD)], -2);
    expect(dark).toBeGreaterThan(2);
    expect(dark).toBeLessThan(3);
    expect([lit, end]).toEqual([0, 0]);
  });

  it('believes paint rather than shade where a lit wall faces the same way', () => {
    expect(guessShade([wall(-5, RIGHT), wall(-2, RIGHT), wall(-2.4, AHEAD)], -2)).toEqual([0, 0, 0]);
  });

  it('needs less of a wall that faces the other way than the lit one', () => {
    expect(guessShade([wall(-4, AHEAD), wall(-2, RIGHT)], -2)[0]).toBe(0);
    expect(guessShade([wall(-4, LEFT), wall(-2, RIGHT)], -2)[0]).toBeGreaterThan(2);
  });

  it('holds a wall alone against lit ground', () => {
    expect(guessShade([wall(-5, LEFT)], -2)[0]).toBeGreaterThan(2);
    expect(guessShade([wall(-3, LEFT)], -2)[0]).toBe(0);
  });

  it('says nothing of what is hardly seen, or of nothing', () => {
    expect(guessShade([wall(-6, LEFT, 0.001), wall(-2, RIGHT)], -2)).toEqual([0, 0]);
    expect(guessShade([wall(NaN, LEFT, 0)], -2)).toEqual([0]);
    expect(guessShade([], NaN)).toEqual([]);
  });
});
