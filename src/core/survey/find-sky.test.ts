import { describe, expect, it } from 'vitest';
import { seeded } from '../fixture/seeded';
import type { RgbPlanes } from '../plane/plane';
import { findSky } from './find-sky';
import { plateFeatures } from './plate-features';

const [W, H] = [200, 120];
const HORIZON = { left: 0.8, right: 0.8 };
const BLUE = [0.05, 0.13, 0.32];
const CLOUD = [0.75, 0.78, 0.82];
const SLATE = [0.12, 0.135, 0.15];
const HOUSE = [0.35, 0.2, 0.12];

/** A plate of what lies at each of its pixels, with grain, the same for everyone. */
function plateOf(at: (x: number, y: number) => readonly number[], grain = 0.01): RgbPlanes {
  const random = seeded(5);
  const planes = [0, 1, 2].map(() => new Float32Array(W * H));
  for (let i = 0; i < W * H; i++) {
    const rough = 1 + grain * (2 * random() - 1);
    at(i % W, Math.floor(i / W)).forEach((light, c) => (planes[c][i] = rough * light));
  }
  return { width: W, height: H, r: planes[0], g: planes[1], b: planes[2] };
}

/** Share of a box that is said to be sky. */
function skyIn(plate: RgbPlanes, [left, top, right, bottom]: readonly number[]): number {
  const sky = findSky(plateFeatures(plate), HORIZON);
  let all = 0;
  for (let y = top; y < bottom; y++) for (let x = left; x < right; x++) all += sky[y * W + x];
  return all / ((right - left) * (bottom - top));
}

const SKY_BOX = [110, 2, 195, 45];
const ROOF_BOX = [20, 10, 75, 45];

/** Courses of slates, each a little lighter or darker. */
const slates = (x: number, y: number) =>
  SLATE.map((light) => light * ((Math.floor(x / 3) + Math.floor(y / 2)) % 2 ? 0.84 : 1.16));

describe('the sky at the plate’s upper edge', () => {
  it('is no slate roof that is cut by the edge, nor where a strait of sky joins both', () => {
    for (const strait of [0, 2]) {
      const street = plateOf((x, y) => {
        if (y >= 50) return HOUSE;
        if (x >= 100 || y < strait) return BLUE;
        return x < 80 ? slates(x, y) : HOUSE;
      });
      expect(skyIn(street, SKY_BOX)).toBeGreaterThan(0.95);
      expect(skyIn(street, ROOF_BOX)).toBeLessThan(0.02);
    }
  });

  it('is no dark grey corner of a tower, however calm', () => {
    const tower = plateOf(
      (x, y) => (y >= 50 ? HOUSE : x >= 8 ? CLOUD : SLATE.map((light) => 1.6 * light)),
      0,
    );
    expect(skyIn(tower, [1, 5, 6, 45])).toBe(0);
    expect(skyIn(tower, SKY_BOX)).toBe(1);
  });

  it('is a cloud beside the blue, a sliver between two gables, and all of an even sky', () => {
    const cloudy = plateOf((x, y) => (y >= 50 ? HOUSE : x < 90 ? CLOUD : BLUE));
    expect(skyIn(cloudy, ROOF_BOX)).toBeGreaterThan(0.95);
    expect(skyIn(cloudy, SKY_BOX)).toBeGreaterThan(0.95);
    const gables = plateOf((x, y) => (y >= 50 || (x < 100 && (x < 37 || x > 45)) ? HOUSE : BLUE), 0);
    expect(skyIn(gables, [41, 2, 42, 40])).toBe(1);
    expect(
      skyIn(
        plateOf((_, y) => (y >= 50 ? HOUSE : BLUE)),
        [2, 2, 198, 45],
      ),
    ).toBeGreaterThan(0.97);
  });

  it('is no white facade that the edge cuts, storey by storey, beside less of the blue', () => {
    const panels = (x: number, y: number) =>
      y % 24 < 20 && x % 30 < 26 ? CLOUD.map((c) => c * 0.96) : HOUSE;
    const facade = plateOf((x, y) => (y >= 92 || x < 60 ? (y >= 50 ? HOUSE : BLUE) : panels(x, y)));
    expect(skyIn(facade, [2, 2, 55, 45])).toBeGreaterThan(0.95);
    expect(skyIn(facade, [62, 2, 198, 90])).toBeLessThan(0.02);
  });

  it('is the blue behind branches, but no blue of another hue, darker, small, or under a roof', () => {
    const branches = (x: number, y: number) => ((x + 2 * y) % 4 < 2 ? [0.01, 0.02, 0.01] : [0.06, 0.1, 0.04]);
    const behind = (below: readonly number[], over: typeof branches, from = 0) =>
      plateOf((x, y) => {
        if (y >= 60 || (x >= 150 && y > 8)) return HOUSE;
        if (y > 12 && y < 26 && x < 150) return over(x, y);
        return y <= 12 ? BLUE : x < from ? HOUSE : below;
      });
    const paler = [0.1, 0.21, 0.42];
    expect(skyIn(behind(paler, branches), [5, 32, 140, 56])).toBeGreaterThan(0.95);
    for (const other of [[0.2, 0.08, 0.4], BLUE.map((c) => 0.3 * c)])
      expect(skyIn(behind(other, branches), [5, 32, 140, 56])).toBe(0);
    expect(skyIn(behind(paler, branches, 146), [147, 32, 149, 56])).toBe(0);
    expect(
      skyIn(
        behind(paler, () => SLATE),
        [5, 32, 140, 56],
      ),
    ).toBe(0);
  });

  it('is the same in a plate that is darker, warmer or in black and white', () => {
    const street = (x: number, y: number) => {
      if (y >= 50) return y % 12 < 4 ? [0.6, 0.58, 0.54] : HOUSE;
      return x < 60 ? [0.5, 0.46, 0.4] : x < 120 ? CLOUD : BLUE;
    };
    const lights = { plain: [1, 1, 1], dark: [0.2, 0.2, 0.2], warm: [1, 0.85, 0.55], cold: [0.6, 0.8, 1] };
    for (const [name, light] of Object.entries(lights)) {
      const plate = plateOf((x, y) => street(x, y).map((tone, c) => tone * light[c]), 0.03);
      expect(skyIn(plate, [64, 2, 116, 45]), name).toBeGreaterThan(0.95);
      expect(skyIn(plate, [124, 2, 195, 45]), name).toBeGreaterThan(0.95);
      expect(skyIn(plate, [2, 2, 55, 48]), name).toBeLessThan(0.05);
    }
    const grey = plateOf((x, y) => {
      const light = y < 50 && x < 100 ? slates(x, y)[1] : y < 50 ? 0.5 : 0.2;
      return [light, light, light];
    });
    expect(skyIn(grey, SKY_BOX)).toBeGreaterThan(0.95);
    expect(skyIn(grey, ROOF_BOX)).toBeLessThan(0.05);
  });

  it('goes on over the soft rim of a cloud, not over the edge of a white house', () => {
    const WHITE = [0.85, 0.86, 0.88];
    const climb = (share: number) => BLUE.map((blue, c) => blue + share * (WHITE[c] - blue));
    const cloud = plateOf((x, y) => (y >= 90 ? HOUSE : climb(Math.min(1, Math.max(0, (y - 30) / 6)))), 0.004);
    expect(skyIn(cloud, [5, 45, 195, 85])).toBeGreaterThan(0.95);
    const house = plateOf((x, y) => (y >= 90 ? HOUSE : x > 40 && x < 160 && y > 30 ? WHITE : BLUE), 0.004);
    expect(skyIn(house, [50, 40, 150, 85])).toBe(0);
  });

  it('is no pale cornice before the blue, though its edge is soft', () => {
    const CREAM = [0.82, 0.76, 0.64];
    const mixed = (share: number, from: readonly number[], to: readonly number[]) =>
      from.map((tone, c) => tone + Math.min(1, Math.max(0, share)) * (to[c] - tone));
    const roof = (x: number) => 40 - 0.15 * x;
    const plate = plateOf((x, y) => {
      const under = y - roof(x);
      // What lies under it is in its shade.
      const shaded = Math.min(1, Math.max(0, under - 2.5)) * (under < 9 ? 1 : 0);
      return mixed(0.8 * shaded, mixed((under + 1.5) / 3, BLUE, CREAM), [0, 0, 0]);
    }, 0.004);
    const sky = findSky(plateFeatures(plate), HORIZON);
    const cornice = Array.from({ length: W }, (_, x) => sky[(Math.round(roof(x)) + 2) * W + x]);
    expect(cornice.filter((is) => is > 0)).toEqual([]);
    expect(sky.subarray(80, 4 * W).every((is) => is > 0)).toBe(true);
  });

  it('is no wall with windows that is cut by the edge, however light and plain', () => {
    const windows = (x: number, y: number) => x % 20 > 8 && y % 16 > 5;
    const light = plateOf((x, y) => {
      if (y >= 70 || (x < 100 && windows(x, y))) return [0.05, 0.05, 0.05];
      return x < 100 ? [0.8, 0.8, 0.8] : BLUE;
    }, 0.004);
    expect(skyIn(light, [2, 2, 98, 68])).toBeLessThan(0.02);
    expect(skyIn(light, SKY_BOX)).toBeGreaterThan(0.95);
  });

  it('is no warm, red wall over grey ground, be it as calm as a sky', () => {
    const wall = plateOf((_, y) => (y < 60 ? [0.5, 0.25, 0.1] : [0.1, 0.1, 0.1]), 0);
    expect(skyIn(wall, [2, 2, 198, 58])).toBe(0);
  });
});
