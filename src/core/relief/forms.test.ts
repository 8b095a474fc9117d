import { describe, expect, it } from 'vitest';
import { luminance } from '../color/luminance';
import { distanceInside } from '../plane/distance-inside';
import { wholeRegion } from '../plane/region';
import { SOFT_LEVELS, softenCoverage, softLevel } from '../light/soft-coverage';
import { findCastShadow } from '../matte/find-cast-shadow';
import { liftShadow, shadowGains } from '../day/lift-shadow';
import { rasterizeLeaves } from './rasterize-leaves';
import { RELIEF_PLANES, type Relief } from './relief-planes';
import { createReliefRow, sightRow } from './relief-row';
import { creaseTilts, roundTilts } from './standee-form';
import { addPointSpill } from '../light/add-point-spill';
import { createCamera } from '../geometry/camera';

const [WIDTH, HEIGHT] = [90, 60];
const COUNT = WIDTH * HEIGHT;
const plane = (value: (x: number, y: number) => number) =>
  Float32Array.from({ length: COUNT }, (_, i) => value(i % WIDTH, Math.floor(i / WIDTH)));

describe('distanceInside', () => {
  it('is the exact distance to the nearest pixel outside, and knows no edge of the picture', () => {
    const covered = plane((x, y) => (Math.hypot(x - 40, y - 30) < 20 ? 1 : 0));
    const found = distanceInside(covered, WIDTH, HEIGHT);
    const nearest = (x: number, y: number) => {
      let least = Infinity;
      covered.forEach((value, i) => {
        if (value < 0.5) least = Math.min(least, Math.hypot((i % WIDTH) - x, Math.floor(i / WIDTH) - y));
      });
      return least;
    };
    for (const [x, y] of [
      [40, 30],
      [50, 20],
      [58, 31],
    ])
      expect(found[y * WIDTH + x]).toBeCloseTo(nearest(x, y), 5);
    expect(found[0]).toBe(0);
    const column = distanceInside(
      plane((x) => (x > 30 && x < 50 ? 1 : 0)),
      WIDTH,
      HEIGHT,
    );
    expect(column[40]).toBe(10);
  });
});

describe('roundTilts', () => {
  const post = roundTilts(
    plane((x) => (x >= 30 && x < 60 ? 1 : 0)),
    WIDTH,
    HEIGHT,
  );
  const at = (x: number) => post.right[30 * WIDTH + x];

  it('turns a post’s normals outward: left at its left rim, right at its right, to the eye between', () => {
    expect(at(32)).toBeLessThan(-0.6);
    expect(at(57)).toBeGreaterThan(0.6);
    expect(Math.abs(at(44))).toBeLessThan(0.2);
    expect(at(37)).toBeGreaterThan(at(32));
    expect(at(10)).toBeCloseTo(0, 9);
    expect(post.up.every((value) => Math.abs(value) < 0.05)).toBe(true);
  });

  it('is the same wherever in however large a picture it stands, and nothing where nothing does', () => {
    const disc = (width: number, height: number, cx: number, cy: number) =>
      roundTilts(
        Float32Array.from({ length: width * height }, (_, i) =>
          Math.hypot((i % width) - cx, Math.floor(i / width) - cy) < 9 ? 1 : 0,
        ),
        width,
        height,
      );
    const [near, far] = [disc(40, 40, 20, 20), disc(150, 90, 120, 30)];
    for (let y = -10; y <= 10; y++)
      for (let x = -10; x <= 10; x++) {
        const [a, b] = [(20 + y) * 40 + 20 + x, (30 + y) * 150 + 120 + x];
        expect(far.right[b]).toBeCloseTo(near.right[a], 5);
        expect(far.up[b]).toBeCloseTo(near.up[a], 5);
      }
    expect(roundTilts(new Float32Array(COUNT), WIDTH, HEIGHT).right.some((value) => value !== 0)).toBe(false);
  });

  it('never tilts by more than a whole', () => {
    const blob = roundTilts(
      plane((x, y) => (Math.hypot(x - 45, y - 30) < 18 + 5 * Math.sin(x) ? 1 : 0)),
      WIDTH,
      HEIGHT,
    );
    blob.right.forEach((value, i) => expect(Math.hypot(value, blob.up[i])).toBeLessThanOrEqual(1.0001));
  });
});

describe('creaseTilts', () => {
  it('tilts the upper side of a bright fold up and its lower side down', () => {
    const fold = plane((_x, y) => 0.2 + 0.5 * Math.exp(-(((y - 30) / 2) ** 2)));
    const { up, right } = creaseTilts({ width: WIDTH, height: HEIGHT, r: fold, g: fold, b: fold });
    expect(up[28 * WIDTH + 45]).toBeGreaterThan(0.1);
    expect(up[32 * WIDTH + 45]).toBeLessThan(-0.1);
    expect(Math.abs(right[28 * WIDTH + 45])).toBeLessThan(1e-4);
    const flat = new Float32Array(COUNT).fill(0.3);
    const none = creaseTilts({ width: WIDTH, height: HEIGHT, r: flat, g: flat, b: flat });
    expect(none.up.every((value) => Math.abs(value) < 1e-4)).toBe(true);
  });
});

describe('the sun’s shadow', () => {
  const inShadow = (x: number, y: number) => x > 30 && x < 50 && y > 20 && y < 45;
  const grain = (x: number, y: number) => 1 + 0.1 * (((x * 7 + y * 3) % 5) / 5 - 0.4);
  const shaded = [0.2, 0.25, 0.4].map((share) =>
    plane((x, y) => 0.4 * grain(x, y) * (inShadow(x, y) ? share : 1)),
  );
  const plate = { width: WIDTH, height: HEIGHT, r: shaded[0], g: shaded[1], b: shaded[2] };
  const coverage = plane((x, y) => (inShadow(x, y) ? 1 : 0));
  const ground = new Float32Array(COUNT).fill(1);
  const planes = () => ({
    width: WIDTH,
    height: HEIGHT,
    r: new Float32Array(COUNT),
    g: new Float32Array(COUNT),
    b: new Float32Array(COUNT),
    lit: new Float32Array(COUNT),
    rim: new Float32Array(COUNT),
    slope: new Float32Array(COUNT),
    offset: new Float32Array(COUNT),
  });

  it('is lifted to what lies beside it, per channel, with its grain', () => {
    const gains = planes();
    shadowGains(gains, plate, coverage, ground);
    const out = planes();
    liftShadow(out, plate, coverage, gains, wholeRegion(WIDTH, HEIGHT), 1);
    for (const name of ['r', 'g', 'b'] as const) {
      for (const [x, y] of [
        [32, 22],
        [40, 33],
        [48, 44],
      ]) {
        const i = y * WIDTH + x;
        expect(out[name][i] / (0.4 * grain(x, y))).toBeGreaterThan(0.9);
        expect(out[name][i] / (0.4 * grain(x, y))).toBeLessThan(1.1);
      }
      expect(out[name][5 * WIDTH + 5]).toBe(plate[name][5 * WIDTH + 5]);
    }
    liftShadow(out, plate, coverage, gains, wholeRegion(WIDTH, HEIGHT), 0);
    expect(out.r).toEqual(plate.r);
  });

  it('has the colour of the sun alone: a red thing beside it tints nothing', () => {
    const red = plane((x, y) => (x > 52 && x < 58 && y > 25 && y < 32 ? 1 : 0));
    const beside = {
      ...plate,
      r: plate.r.map((value, i) => (red[i] ? 0.7 : value)),
      g: plate.g.map((value, i) => (red[i] ? 0.02 : value)),
      b: plate.b.map((value, i) => (red[i] ? 0.02 : value)),
    };
    const [plain, near] = [planes(), planes()];
    shadowGains(plain, plate, coverage, ground);
    shadowGains(near, beside, coverage, ground);
    const hue = ({ r, b }: typeof plain, i: number) => r[i] - b[i];
    const i = 30 * WIDTH + 47;
    expect(Math.abs(hue(near, i) - hue(plain, i))).toBeLessThan(0.25);
  });

  it('is lifted by no more than its own edge tells where it is a darker paving', () => {
    // A patch apart that is only a little darker than around it.
    const isPatch = plane((x, y) => (x >= 70 && x < 82 && y >= 8 && y < 16 ? 1 : 0));
    const patched = (name: 'r' | 'g' | 'b') =>
      plate[name].map((value, i) => (isPatch[i] ? 0.7 * value : value));
    const both = { ...plate, r: patched('r'), g: patched('g'), b: patched('b') };
    const gains = planes();
    shadowGains(
      gains,
      both,
      coverage.map((value, i) => Math.max(value, isPatch[i])),
      ground,
    );
    expect(gains.g[33 * WIDTH + 40]).toBeGreaterThan(1.2);
    expect(gains.g[12 * WIDTH + 76]).toBeLessThan(0.8);
  });

  it('leaves no rim: its soft edge gets no brighter than the ground beside it', () => {
    const share = (x: number) => Math.min(1, Math.max(0, (x - 40) / 12));
    const soft = (lit: number, shade: number) => plane((x) => shade + share(x) * (lit - shade));
    const edge = { width: WIDTH, height: HEIGHT, r: soft(0.4, 0.05), g: soft(0.4, 0.06), b: soft(0.4, 0.1) };
    // Found up to where it is nearly lit.
    const found = plane((x) => (x < 50 ? 1 : 0));
    const [gains, out] = [planes(), planes()];
    shadowGains(gains, edge, found, ground);
    liftShadow(out, edge, found, gains, wholeRegion(WIDTH, HEIGHT), 1);
    const row = [...out.g.subarray(30 * WIDTH, 31 * WIDTH)];
    for (const value of row) expect(value).toBeLessThan(0.4 * 2 ** 0.22);
    for (const value of row.slice(44)) expect(value).toBeGreaterThan(0.2);
  });

  it('leaves no dark band: its half-shadow is lifted beyond what was found of it, but not what lies beside', () => {
    const share = (x: number) => Math.min(1, Math.max(0, (x - 42) / 3));
    const soft = (lit: number, shade: number) => plane((x) => shade + share(x) * (lit - shade));
    const edge = { width: WIDTH, height: HEIGHT, r: soft(0.4, 0.05), g: soft(0.4, 0.06), b: soft(0.4, 0.1) };
    const found = plane((x) => (x < 43 ? 1 : 0));
    const [gains, out] = [planes(), planes()];
    shadowGains(gains, edge, found, ground);
    liftShadow(out, edge, found, gains, wholeRegion(WIDTH, HEIGHT), 1);
    const at = (x: number) => out.g[30 * WIDTH + x];
    expect(edge.g[30 * WIDTH + 43]).toBeLessThan(0.18);
    for (let x = 43; x < 60; x++) expect(at(x)).toBeGreaterThan(0.28);
    for (let x = 50; x < 60; x++) expect(at(x)).toBeCloseTo(0.4, 2);
  });

  it('is lifted beside a thing that is darker than the shade, far from all that is lit', () => {
    // Shade up to a dark hedge; the lit ground lies far to the right.
    const hedge = (x: number) => x < 8;
    const shade = (x: number) => x >= 8 && x < 70;
    const tone = (lit: number, gain: number) => plane((x) => (hedge(x) ? 0.02 : shade(x) ? lit / gain : lit));
    const yard = { width: WIDTH, height: HEIGHT, r: tone(0.4, 5), g: tone(0.4, 4), b: tone(0.4, 3) };
    const [gains, out] = [planes(), planes()];
    const found = plane((x) => (shade(x) ? 1 : 0));
    const own = plane((x) => (hedge(x) ? 0 : 1));
    shadowGains(gains, yard, found, own);
    liftShadow(out, yard, found, gains, wholeRegion(WIDTH, HEIGHT), 1);
    for (const x of [9, 11, 14, 20, 40, 60]) {
      const i = 30 * WIDTH + x;
      for (const name of ['r', 'g', 'b'] as const) {
        expect(out[name][i]).toBeGreaterThan(0.33);
        expect(out[name][i]).toBeLessThan(0.48);
      }
    }
  });

  it('is no stain: a patch that is far less deep than the shadow is none', () => {
    const patch = (x: number, y: number) => x >= 66 && x < 80 && y >= 8 && y < 22;
    const tone = (lit: number, gain: number, stain: number) =>
      plane((x, y) => (x < 40 ? lit / gain : patch(x, y) ? lit / stain : lit));
    const yard = {
      ...{ width: WIDTH, height: HEIGHT },
      ...{ r: tone(0.4, 8, 2.2), g: tone(0.38, 7, 2.1), b: tone(0.34, 5, 1.8) },
    };
    const all = plane(() => 1);
    const found = findCastShadow(yard, all);
    expect(found[30 * WIDTH + 20]).toBeGreaterThan(0.8);
    expect(found[15 * WIDTH + 73]).toBe(0);
    // As deep as the shadow it is one, however small.
    const deep = { ...yard, r: tone(0.4, 8, 8), g: tone(0.38, 7, 7), b: tone(0.34, 5, 5) };
    expect(findCastShadow(deep, all)[15 * WIDTH + 73]).toBeGreaterThan(0.8);
  });

  it('of nothing changes nothing', () => {
    const gains = planes();
    shadowGains(gains, plate, new Float32Array(COUNT), ground);
    expect([...gains.r, ...gains.b].every((value) => value === 0)).toBe(true);
  });

  it('is found to its middle where it covers half of the ground', () => {
    const dark = plane((x) => (x < 45 ? 1 : 0));
    const tone = (lit: number, shade: number) => dark.map((value) => (value ? shade : lit));
    const half = {
      width: WIDTH,
      height: HEIGHT,
      r: tone(0.4, 0.07),
      g: tone(0.38, 0.08),
      b: tone(0.34, 0.09),
    };
    const all = plane(() => 1);
    const found = findCastShadow(half, all);
    for (const x of [8, 20, 40]) expect(found[30 * WIDTH + x]).toBeGreaterThan(0.8);
    for (const x of [50, 70, 88]) expect(found[30 * WIDTH + x]).toBe(0);
    // As dark, but of the same hue: another paving.
    const paving = { ...half, r: tone(0.4, 0.08), g: tone(0.38, 0.076), b: tone(0.34, 0.068) };
    expect(Math.max(...findCastShadow(paving, all))).toBe(0);
  });

  it('is found on ground where it is dark and cool, not where the ground is dark and warm', () => {
    const found = findCastShadow(plate, ground);
    expect(found[33 * WIDTH + 40]).toBeGreaterThan(0.8);
    expect(found[5 * WIDTH + 80]).toBe(0);
    const brown = {
      ...plate,
      r: plate.r.map((value, i) => (coverage[i] ? 3 * value : value)),
      b: plate.b.map((value, i) => (coverage[i] ? value / 4 : value)),
    };
    expect(
      luminance([brown.r[33 * WIDTH + 40], brown.g[33 * WIDTH + 40], brown.b[33 * WIDTH + 40]]),
    ).toBeLessThan(0.25);
    expect(findCastShadow(brown, ground)[33 * WIDTH + 40]).toBe(0);
    expect(findCastShadow(plate, new Float32Array(COUNT)).every((value) => value === 0)).toBe(true);
  });
});

describe('softenCoverage', () => {
  it('keeps the sharp one, blurs each level more, and loses nothing', () => {
    const half = plane((x) => (x < 45 ? 1 : 0));
    const levels = new Float32Array(SOFT_LEVELS * COUNT);
    softenCoverage(levels, { width: WIDTH, height: HEIGHT, data: half });
    const at = (level: number, x: number) => levels[level * COUNT + 30 * WIDTH + x];
    expect(at(0, 45)).toBe(0);
    for (let level = 1; level < SOFT_LEVELS; level++) {
      expect(at(level, 45)).toBeGreaterThan(at(level - 1, 45));
      expect(at(level, 44) + at(level, 45)).toBeCloseTo(1, 5);
    }
    expect([softLevel(0), softLevel(1), softLevel(2), softLevel(16), softLevel(1000)]).toEqual([
      0, 1, 2, 5, 5,
    ]);
  });
});

describe('rasterizeLeaves', () => {
  const region = wholeRegion(4, 1);
  const camera = createCamera({ horizon: { left: 0.5, right: 0.5 }, eyeHeight: 1.6, lens: 35 }, 4);

  /** A row of a wall that leads away on the right, and of ground in its last pixel. */
  function hedge(covered: number[]): Relief {
    const relief = Object.fromEntries(
      RELIEF_PLANES.map((name) => [name, new Float32Array(4)]),
    ) as unknown as Relief;
    relief.reach.fill(10);
    relief.land.fill(1);
    relief.normalX.fill(-1, 0, 3);
    relief.normalZ[3] = 1;
    const row = createReliefRow(4);
    sightRow(row, camera, region, 0);
    rasterizeLeaves(relief, row, Float32Array.from(covered));
    return relief;
  }

  /** Light of a lamp at a place on the four pixels. */
  function lit(relief: Relief, place: [number, number, number]): Float32Array {
    const out = new Float32Array(4);
    addPointSpill(out, relief, camera, region, { place, spillCandela: 1000, airCandela: 0, radius: 0.1 });
    return out;
  }

  it('lets a hedge take light from all around, about alike, and leaves wall and lawn as they are', () => {
    const [wall, leaves] = [hedge([0, 0, 0, 0]), hedge([1, 1, 0, 1])];
    for (const name of RELIEF_PLANES) {
      expect(leaves[name][2]).toBe(wall[name][2]);
      expect(leaves[name][3]).toBe(wall[name][3]);
    }
    // Before the second pixel, behind it, and on either side, three metres off.
    const ray = [0, 1, 2].map(
      (axis) => camera.corner[axis] + 0.375 * camera.across[axis] + 0.5 * camera.down[axis],
    );
    const [x, y] = [10 * ray[0], 10 * ray[1]];
    const around = (
      [
        [0, -3],
        [0, 3],
        [3, 0],
        [-3, 0],
      ] as const
    ).map(([dx, dy]) => lit(leaves, [x + dx, y + dy, 1.6])[1]);
    const mean = around.reduce((sum, value) => sum + value / 4, 0);
    expect(mean).toBeCloseTo(1000 / 9 / Math.PI, 0);
    for (const value of around) expect(Math.abs(value / mean - 1)).toBeLessThan(0.15);
    expect(lit(wall, [x + 3, y, 1.6])[1]).toBe(0);
  });
});
