import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { filmResponse, filmUnresponse } from '../film/film-response';
import { evenOut, levelling, shadingOf } from '../day/even-out';
import { wholeRegion } from '../plane/region';
import type { Rgb } from '../color/rgb';
import { gradeOf, gradeTables, GRADE_TABLES } from '../grade/grade';
import { ambientLight } from './ambient-light';
import { nightBase } from './night-base';
import { startingNight } from './starting-night';
import { surroundings } from './surroundings';
import { toneRange } from './tone-range';

const flat = (color: Rgb, width = 1, height = 1) => ({
  width,
  height,
  r: new Float32Array(width * height).fill(color[0]),
  g: new Float32Array(width * height).fill(color[1]),
  b: new Float32Array(width * height).fill(color[2]),
});

const NIGHT = { ...startingNight(0.5), hold: 0, rods: 0, saturation: 1, kelvin: 5500, exposure: -2 };

describe('filmUnresponse', () => {
  it('gives the light back that the film showed', () => {
    const channel = fc.double({ min: 0.001, max: 4, noNaN: true });
    fc.assert(
      fc.property(fc.tuple(channel, channel, channel), (light) => {
        const shown = filmResponse(light);
        fc.pre(shown.every((display) => display > 0 && display < 0.999));
        filmUnresponse(shown).forEach((value, c) => expect(value / light[c]).toBeCloseTo(1, 2));
      }),
    );
  });
});

describe('nightBase', () => {
  const base = (color: Rgb, night: Partial<typeof NIGHT> = {}, open?: number) => {
    const out = flat([0, 0, 0]);
    nightBase(
      out,
      flat(color),
      ambientLight({ ...NIGHT, ...night }),
      open === undefined ? undefined : Float32Array.of(open),
    );
    return [out.r[0], out.g[0], out.b[0]];
  };

  it('is exposure alone in the white of the camera', () => {
    base([0.8, 0.4, 0.2]).forEach((value, c) => expect(value).toBeCloseTo([0.2, 0.1, 0.05][c], 5));
    expect(base([0.8, 0.8, 0.8], {}, 0.5)[0]).toBeCloseTo(0.1, 5);
  });

  it('shows a metered plate as one that was exposed rightly, its highlights too', () => {
    const dark = flat([0.2, 0.1, 0.05]);
    const out = flat([0, 0, 0]);
    nightBase(out, dark, ambientLight({ ...NIGHT, hold: 0.7, rods: 0.4 }, 4));
    const right = base([0.8, 0.4, 0.2], { hold: 0.7, rods: 0.4 });
    [out.r[0], out.g[0], out.b[0]].forEach((value, c) => expect(value).toBeCloseTo(right[c], 6));
  });

  it('takes colour out without touching luminance', () => {
    const [r, g, b] = base([0.8, 0.3, 0.1], { saturation: 0 });
    expect(r).toBeCloseTo(g, 6);
    expect(g).toBeCloseTo(b, 6);
    expect(r).toBeCloseTo((0.2126 * 0.8 + 0.7152 * 0.3 + 0.0722 * 0.1) / 4, 5);
  });

  it('sees reds go dark with rods, and leaves greys alone', () => {
    const [red] = base([0.6, 0.05, 0.05], { saturation: 0, rods: 1 });
    expect(red).toBeLessThan(0.5 * base([0.6, 0.05, 0.05], { saturation: 0 })[0]);
    expect(base([0.4, 0.4, 0.4], { saturation: 0, rods: 1 })[0]).toBeCloseTo(0.1, 5);
  });

  it('holds down what was bright by day', () => {
    expect(base([0.9, 0.9, 0.9], { hold: 0.8 })[0]).toBeLessThan(0.6 * base([0.9, 0.9, 0.9])[0]);
    expect(base([0.03, 0.03, 0.03], { hold: 0.8 })[0]).toBeGreaterThan(0.98 * base([0.03, 0.03, 0.03])[0]);
  });
});

describe('toneRange', () => {
  it('finds the ends of what a night occupies, and passes single pixels over', () => {
    const plate = flat([0.2, 0.2, 0.2], 40, 50);
    for (const plane of [plate.r, plate.g, plate.b]) plane.fill(0.05, 1000).fill(30, 0, 1);
    const tables = new Float32Array(GRADE_TABLES.length);
    gradeTables(tables, NIGHT);
    const kit = { grade: gradeOf(NIGHT), tables };
    const tone = (day: number) => toneRange(flat([day, day, day]), ambientLight(NIGHT), kit).low;
    const { low, high } = toneRange(plate, ambientLight(NIGHT), kit);
    expect(low).toBeCloseTo(tone(0.05), 2);
    expect(high).toBeCloseTo(tone(0.2), 2);
  });
});

describe('surroundings', () => {
  const region = wholeRegion(60, 40);
  const at = (plane: Float32Array, u: number, v: number) =>
    plane[Math.floor(v * 40) * 60 + Math.floor(u * 60)];
  const dark = (soft: number) => {
    const out = new Float32Array(60 * 40);
    surroundings(out, region, { stops: 3, soft, pools: [{ u: 0.5, v: 0.5, across: 0.2, down: 0.3 }] });
    return out;
  };

  it('sinks by its stops outside, stays open inside, and closes smoothly', () => {
    const out = dark(0.5);
    expect(at(out, 0.05, 0.5)).toBeCloseTo(1 / 8, 6);
    expect(at(out, 0.5, 0.5)).toBe(1);
    const across = Array.from({ length: 12 }, (_, i) => at(out, 0.5 + i / 50, 0.5));
    across.slice(1).forEach((value, i) => expect(value).toBeLessThanOrEqual(across[i]));
  });

  it('is hard without softness, and the same in any part of a picture', () => {
    expect(new Set(dark(0).map((value) => Math.round(1000 * value))).size).toBe(2);
    const part = new Float32Array(20 * 10);
    surroundings(
      part,
      { ...region, left: 25, top: 18, width: 20, height: 10 },
      {
        stops: 3,
        soft: 0.5,
        pools: [{ u: 0.5, v: 0.5, across: 0.2, down: 0.3 }],
      },
    );
    expect(part[0]).toBe(dark(0.5)[18 * 60 + 25]);
  });
});

describe('evenOut', () => {
  const [width, height] = [80, 40];
  const region = wholeRegion(width, height);
  const land = { slope: new Float32Array(width * height), offset: new Float32Array(width * height) };
  const sky = { slope: land.slope, offset: new Float32Array(width * height).fill(1) };
  const plate = flat([0, 0, 0], width, height);
  // Sun on the left, shade on the right, with a fine pattern in both.
  plate.r.forEach((_, i) => {
    const value = (i % width < width / 2 ? 0.4 : 0.1) * ((i % width) % 2 ? 1.1 : 1);
    plate.r[i] = plate.g[i] = plate.b[i] = value;
  });
  const even = (amount: number, cover = land) => {
    const out = flat([0, 0, 0], width, height);
    const shift = new Float32Array(width * height);
    levelling(shift, plate, shadingOf(plate), cover, region, 0.2);
    evenOut(out, plate, shift, amount);
    const mean = (from: number) => (out.r[20 * width + from] + out.r[20 * width + from + 1]) / 2;
    return { ratio: mean(10) / mean(60), texture: out.r[20 * width + 11] / out.r[20 * width + 10] };
  };

  it('brings sun and shade together by its amount, and keeps the pattern', () => {
    expect(even(0).ratio).toBeCloseTo(4, 1);
    expect(even(0.5).ratio).toBeCloseTo(2.5, 0);
    expect(even(1).ratio).toBeLessThan(1.7);
    expect(even(1).texture).toBeGreaterThan(1.05);
  });

  it('is the plate itself at no amount, and leaves the sky alone', () => {
    const out = flat([0, 0, 0], width, height);
    evenOut(out, plate, new Float32Array(width * height).fill(3), 0);
    expect(out.r).toEqual(plate.r);
    expect(even(1, sky).ratio).toBeCloseTo(4, 1);
  });
});
