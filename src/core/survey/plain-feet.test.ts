import { describe, expect, it } from 'vitest';
import type { RgbPlanes } from '../plane/plane';
import { findGround } from './find-ground';
import { plainFeet } from './plain-feet';
import { plateFeatures } from './plate-features';
import { coverOfWalls, toldWalls } from './told-walls';

const [WIDTH, HEIGHT] = [120, 80];
const HORIZON = { left: 0.5, right: 0.5 };
const FOOT = 50;

const isVan = (x: number, y: number) => x >= 60 && x < 80 && y >= 36 && y < 60;

/** A made-up yard: a grey house down to its foot, pale gravel before it, a blue van on both, a dark road at the lower edge. */
function yard(): RgbPlanes {
  const plane = (channel: number) =>
    Float32Array.from({ length: WIDTH * HEIGHT }, (_, i) => {
      const [x, y] = [i % WIDTH, Math.floor(i / WIDTH)];
      const house = [0.2, 0.2, 0.2];
      const gravel = [0.8, 0.6, 0.35];
      const road = [0.05, 0.05, 0.05];
      const tone = isVan(x, y) ? [0.05, 0.1, 0.4] : y < FOOT ? house : y < 68 ? gravel : road;
      return tone[channel];
    });
  return { width: WIDTH, height: HEIGHT, r: plane(0), g: plane(1), b: plane(2) };
}

const wallAt = (v: number) => toldWalls([{ foot: [0, 1].map((u) => ({ u, v })), height: 6 }], 1.6);

describe('plain feet', () => {
  const features = plateFeatures(yard());
  const feetUnder = (v: number) => {
    const walls = wallAt(v);
    return plainFeet(features, walls, HORIZON, coverOfWalls(walls, HORIZON, WIDTH, HEIGHT).under);
  };

  it('are where gravel begins under a wall, and not where a van stands before it', () => {
    const columns = new Set(feetUnder(FOOT / HEIGHT).map(({ at }) => at % WIDTH));
    expect(columns.size).toBeGreaterThan(90);
    for (let x = 61; x < 79; x++) expect(columns.has(x)).toBe(false);
  });

  it('are nowhere where a foot is drawn into the middle of a surface', () => {
    expect(feetUnder(43 / HEIGHT)).toEqual([]);
    expect(feetUnder(54 / HEIGHT)).toEqual([]);
  });

  it('make ground of what is unlike the rest of it, and leave the van standing', () => {
    const noSky = new Uint8Array(WIDTH * HEIGHT);
    const alone = findGround(features, HORIZON, noSky);
    const told = findGround(features, HORIZON, noSky, wallAt(FOOT / HEIGHT));
    const gravel = 60 * WIDTH + 20;
    expect([alone[gravel], told[gravel]]).toEqual([0, 1]);
    expect(told[54 * WIDTH + 70]).toBe(0);
  });

  it('are not needed where most of what lies before a wall looks alike: it is ground under a foot drawn too high', () => {
    const noSky = new Uint8Array(WIDTH * HEIGHT);
    expect(feetUnder(44 / HEIGHT)).toEqual([]);
    const told = findGround(features, HORIZON, noSky, wallAt(44 / HEIGHT));
    expect(told[60 * WIDTH + 20]).toBe(1);
    expect(told[54 * WIDTH + 70]).toBe(0);
  });
});
