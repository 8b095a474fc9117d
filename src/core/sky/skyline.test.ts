import { describe, expect, it } from 'vitest';
import { seeded } from '../fixture/seeded';
import type { RgbPlanes } from '../plane/plane';
import { wholeRegion, type Region } from '../plane/region';
import type { Skyline } from './free-land';
import { landCells } from './land-cells';
import { skyline } from './skyline';
import { skyTones } from './sky-tones';

const [W, H] = [200, 140];

/** A picture whose land covers as much of each place as `share` says, before a sky. */
function picture(
  share: (u: number, v: number) => number,
  sky: (u: number, v: number) => readonly number[],
  land: readonly number[],
  [width, height] = [W, H],
): RgbPlanes {
  const planes = ['r', 'g', 'b'].map((_, c) =>
    Float32Array.from({ length: width * height }, (_, i) => {
      const [u, v] = [((i % width) + 0.5) / width, (Math.floor(i / width) + 0.5) / height];
      const own = share(u, v);
      return own * land[c] + (1 - own) * sky(u, v)[c];
    }),
  );
  return { width, height, r: planes[0], g: planes[1], b: planes[2] };
}

const blank = (width: number, height: number): Skyline => {
  const plane = () => new Float32Array(width * height);
  return { width, height, r: plane(), g: plane(), b: plane(), land: plane() };
};

/** A survey that found land where `found` says, whatever the plate's lightness. */
const surveyOf = (found: Float32Array, { width, height }: RgbPlanes) => ({
  ...{ width, height },
  sky: { slope: new Float32Array(found.length), offset: found.map((land) => 1 - land) },
});

/** The skyline of a picture whose small copy is itself; the survey found land where `found` says. */
function told(
  day: RgbPlanes,
  found: Float32Array,
  region: Region = wholeRegion(day.width, day.height),
  leaves = new Float32Array(found.length),
) {
  const tones = skyTones(
    day,
    found.map((land) => 1 - land),
    new Float32Array(found.length),
    leaves,
  );
  const out = blank(day.width, day.height);
  const said = { ...tones, width: day.width, height: day.height };
  skyline(out, day, { survey: surveyOf(found, day), tones: said }, landCells(said), region);
  return out;
}

const BRIGHT = () => [0.7, 0.8, 0.95] as const;
const DARK = [0.04, 0.05, 0.03] as const;

/** A roof with a slanting edge, soft by a pixel. */
const roof = (u: number, v: number) =>
  Math.min(1, Math.max(0, (v * H - 70 - 0.3 * (u * W - 100)) / 1.6 + 0.5));
const planeOf = (share: (u: number, v: number) => number) =>
  Float32Array.from({ length: W * H }, (_, i) => share(((i % W) + 0.5) / W, (Math.floor(i / W) + 0.5) / H));
/** What a survey makes of it: hard, and a little beside the edge. */
const surveyed = (share: (u: number, v: number) => number) =>
  planeOf((u, v) => (share(u, v + 0.008) > 0.5 ? 1 : 0));

describe('the skyline', () => {
  it('gives back how far mixed pixels are land, and the land’s own colour', () => {
    const day = picture(roof, BRIGHT, DARK);
    const out = told(day, surveyed(roof));
    const truth = planeOf(roof);
    let mixed = 0;
    truth.forEach((share, i) => {
      expect(Math.abs(out.land[i] - share)).toBeLessThan(0.06);
      if (share <= 0.05 || share >= 0.95) return;
      mixed++;
      expect(Math.abs(out.r[i] - DARK[0])).toBeLessThan(0.05);
      expect(Math.abs(out.b[i] - DARK[2])).toBeLessThan(0.06);
    });
    expect(mixed).toBeGreaterThan(150);
  });

  it('leaves no rim before a dark sky', () => {
    const day = picture(roof, BRIGHT, DARK);
    const out = told(day, surveyed(roof));
    // Land at night is a tenth as bright, the sky darker still.
    const [night, sky] = [0.1, 0.001];
    const lit = planeOf(roof).map((share, i) =>
      share > 0 ? out.land[i] * night * out.g[i] + (1 - out.land[i]) * sky : 0,
    );
    expect(Math.max(...lit)).toBeLessThan(1.5 * night * DARK[1]);
    // Without it the rim is many times as bright as the land.
    expect(
      Math.max(...planeOf(roof).map((share, i) => (share > 0.3 ? night * day.g[i] : 0))),
    ).toBeGreaterThan(5 * night * DARK[1]);
  });

  it('keeps wires that are thinner than a pixel, and no clouds', () => {
    const wire = (u: number, v: number) => Math.max(roof(u, v), Math.abs(v * H - 30 - 8 * u) < 0.5 ? 0.7 : 0);
    const clouds = (u: number, v: number) => {
      const white = 0.5 + 0.5 * Math.sin(9 * u + 14 * v);
      return [0.35 + 0.4 * white, 0.5 + 0.3 * white, 0.85] as const;
    };
    const even = told(picture(wire, BRIGHT, DARK), surveyed(roof));
    const at = (x: number, y: number) => y * W + x;
    for (const x of [20, 80, 150]) {
      const y = Math.floor(30 + (8 * (x + 0.5)) / W);
      expect(Math.max(even.land[at(x, y)], even.land[at(x, y + 1)], even.land[at(x, y - 1)])).toBeGreaterThan(
        0.6,
      );
    }
    const cloudy = told(picture(roof, clouds, DARK), surveyed(roof));
    const sky = planeOf(roof).map((share, i) => (Math.floor(i / W) < 25 && share === 0 ? cloudy.land[i] : 0));
    expect(Math.max(...sky)).toBeLessThan(0.05);
  });

  it('sees sky through dark leaves, and none in a white wall', () => {
    const gaps = (u: number, v: number) =>
      roof(u, v) < 0.5 ? 0 : Math.floor(u * W) % 5 === 0 && v * H - 70 - 0.3 * (u * W - 100) < 8 ? 0 : 1;
    const out = told(picture(gaps, BRIGHT, DARK), surveyed(roof));
    const [x, y] = [100, 74];
    expect(out.land[y * W + x]).toBeLessThan(0.35);
    expect(out.land[y * W + x + 2]).toBeGreaterThan(0.9);
    const white = told(picture(roof, BRIGHT, [0.68, 0.8, 0.93]), surveyed(roof));
    expect(white.land[(H - 20) * W + 100]).toBe(1);
    expect(white.land[80 * W + 100]).toBeGreaterThan(0.9);
  });

  it('is the same in a part of a picture, and a number where there is no sky, or nothing else', () => {
    const day = picture(roof, BRIGHT, DARK);
    const found = surveyed(roof);
    const tones = {
      ...skyTones(
        day,
        found.map((land) => 1 - land),
        new Float32Array(found.length),
        new Float32Array(found.length),
      ),
      width: W,
      height: H,
    };
    const whole = told(day, found);
    const region = { ...wholeRegion(W, H), left: 40, top: 50, width: 60, height: 40 };
    const cut = (plane: Float32Array) =>
      Float32Array.from({ length: 60 * 40 }, (_, i) => plane[(50 + Math.floor(i / 60)) * W + 40 + (i % 60)]);
    const part = blank(60, 40);
    const under = { width: 60, height: 40, r: cut(day.r), g: cut(day.g), b: cut(day.b) };
    skyline(part, under, { survey: surveyOf(found, day), tones }, landCells(tones), region);
    part.land.forEach((share, i) => expect(share).toBeCloseTo(cut(whole.land)[i], 5));
    for (const all of [0, 1]) {
      const out = told(day, new Float32Array(W * H).fill(all));
      for (const plane of [out.land, out.r, out.g, out.b]) expect(plane.every(Number.isFinite)).toBe(true);
    }
    expect(told(day, new Float32Array(W * H).fill(1)).land.every((share) => share === 1)).toBe(true);
  });

  it('opens an arch through land, and holes among leaves, to the sky behind', () => {
    const arch = (u: number, v: number) => {
      const [x, y] = [u * W - 100, v * H];
      const inside = y > 95 ? Math.abs(x) < 25 : Math.hypot(x, y - 95) < 25;
      return y < 30 || (inside && y < 125) ? 0 : 1;
    };
    const leaves = (u: number, v: number) => {
      const [x, y] = [Math.floor(u * W), Math.floor(v * H)];
      return y < 40 || (y < 110 && (x * 7 + y * 13) % 11 < 3) ? 0 : 1;
    };
    for (const share of [arch, leaves]) {
      const truth = planeOf(share);
      const out = told(picture(share, BRIGHT, DARK), truth);
      let [bare, right] = [0, 0];
      truth.forEach((land, i) => {
        bare += land === 0 ? 1 : 0;
        right += land === 0 && out.land[i] < 0.1 ? 1 : 0;
        if (land === 1) expect(out.land[i]).toBeGreaterThan(0.8);
      });
      expect(right / bare).toBeGreaterThan(0.95);
    }
  });

  it('takes the grain of a dark sky for no leaves', () => {
    const blue = [0.03, 0.08, 0.2] as const;
    let state = 1;
    const grain = () => {
      state = (state * 16807) % 2147483647;
      return 0.75 + (0.5 * state) / 2147483647;
    };
    const day = picture(roof, () => blue.map((light) => light * grain()), [0.3, 0.22, 0.12]);
    const out = told(day, surveyed(roof));
    let [rim, specks] = [0, 0];
    for (let y = 0; y < H; y++)
      for (let x = 0; x < W; x++) {
        const below = y - (70 + 0.3 * (x - 100));
        if (below > -3 || below < -14) continue;
        rim++;
        specks += out.land[y * W + x] > 0.3 ? 1 : 0;
      }
    expect(specks / rim).toBeLessThan(0.02);
  });

  it('takes the grain of a sky for no birds where the land is hardly darker', () => {
    const random = seeded(5);
    const grain = () => 1 + 0.12 * (random() + random() + random() - 1.5);
    const day = picture(roof, () => [0.2, 0.3, 0.5].map((light) => light * grain()), [0.27, 0.24, 0.2]);
    const out = told(day, surveyed(roof));
    expect(Math.max(...out.land.subarray(0, 40 * W))).toBeLessThan(0.15);
  });

  it('sees blue sky between leaves beside a white cloud, and takes nothing blue elsewhere for it', () => {
    const isHole = (u: number, v: number) =>
      roof(u, v) === 1 && Math.floor(u * W) % 6 < 2 && Math.floor(v * H) % 6 < 2;
    const day = picture(
      (u, v) => (isHole(u, v) ? 0 : roof(u, v)),
      (u, v) => (isHole(u, v) ? [0.25, 0.45, 0.8] : [0.9, 0.9, 0.92]),
      [0.05, 0.1, 0.02],
    );
    const found = surveyed(roof);
    const among = (leaves: number) =>
      told(day, found, wholeRegion(W, H), new Float32Array(W * H).fill(leaves)).land;
    const [leafy, bare] = [among(1), among(0)];
    let holes = 0;
    for (let y = 0; y < H; y++)
      for (let x = 0; x < W; x++) {
        const [i, below] = [y * W + x, y - (70 + 0.3 * (x - 100))];
        if (below < 4 || below > 6) continue;
        const hole = isHole((x + 0.5) / W, (y + 0.5) / H);
        holes += hole ? 1 : 0;
        expect(leafy[i] < 0.6).toBe(hole);
        expect(bare[i]).toBeGreaterThan(0.8);
      }
    expect(holes).toBeGreaterThan(30);
  });
});
