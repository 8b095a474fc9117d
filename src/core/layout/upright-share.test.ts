import { describe, expect, it } from 'vitest';
import { seeded } from '../fixture/seeded';
import type { Plane } from '../plane/plane';
import type { PlateLine } from '../geometry/vanishing-point';
import { guessWalls } from './guess-walls';
import { uprightShares, whereUprightsEnd } from './upright-share';
import { onSlope, slopeOf, type Side } from './wall-side';

const [width, height] = [400, 267];
const own: Side = {
  place: { u: 0.55, share: 1 },
  side: -1,
  horizon: { left: 0.45, right: 0.45 },
  aspect: width / height,
};
const half = { from: 0, to: 0.55 };
const PARALLEL = { lean: 0, along: 0 };

/**
 * A plate with a wall down to a slope under the horizon: stones there, with joints along it and upright ones; below it
 * slabs with joints along it and level ones. Grain over all.
 */
function plateOf(foot: number, grain = 6, stand: (u: number) => boolean = () => false): Plane {
  const random = seeded(11);
  const shown = (u: number, v: number) => {
    if (u > own.place.u - 0.01) return 120;
    const slope = slopeOf(own, { u, v });
    const course = Math.floor(Math.log(Math.abs(slope) + 0.02) * 6);
    const isWall = slope < foot || stand(u);
    const cross = isWall ? u * 28 + course / 2 : (v - 0.45) * 34 + course / 2;
    return 90 + 12 * (course & 1) + 40 * (Math.floor(cross) & 1);
  };
  const data = Float32Array.from({ length: width * height }, (_, i) => {
    let sum = 0;
    for (let k = 0; k < 16; k++) {
      sum += shown(((i % width) + (k % 4) / 4) / width, (Math.floor(i / width) + (k >> 2) / 4) / height);
    }
    return sum / 16 + grain * (random() - 0.5);
  });
  return { width, height, data };
}

const endOf = (plate: Plane) => whereUprightsEnd(uprightShares(own, plate, half, PARALLEL))[0];

describe('whereUprightsEnd', () => {
  it.each([0.35, 0.5, 0.8])('is the foot of a wall at a slope of %f', (foot) => {
    const { slope, drop } = endOf(plateOf(foot));
    expect(Math.abs(Math.log(slope / foot))).toBeLessThan(0.14);
    expect(drop).toBeGreaterThan(0.3);
  });

  it('is the same where a few things stand before the wall', () => {
    const things = (u: number) => (u > 0.1 && u < 0.15) || (u > 0.3 && u < 0.33);
    expect(Math.abs(Math.log(endOf(plateOf(0.45, 6, things)).slope / 0.45))).toBeLessThan(0.14);
  });

  it('is nowhere on the ground alone, on a wall that does not end, in noise, or where nothing is seen', () => {
    const random = seeded(2);
    const noise = {
      width,
      height,
      data: Float32Array.from({ length: width * height }, () => 200 * random()),
    };
    const plain = { width, height, data: new Float32Array(width * height).fill(90) };
    for (const plate of [plateOf(0), plateOf(9), noise, plain]) expect(endOf(plate)).toBeUndefined();
  });

  it('puts the greatest drop first, and looks past gaps', () => {
    const shares: number[] = Array.from({ length: 40 }, (_, k) => (k < 12 ? 0.5 : k < 26 ? 0.14 : 0.02));
    shares[10] = NaN;
    const [first] = whereUprightsEnd(shares);
    expect(first.drop).toBeCloseTo(0.36, 2);
    expect(whereUprightsEnd(shares.map(() => NaN))).toEqual([]);
  });
});

describe('guessWalls without uprights that are seen whole', () => {
  const perspective = { horizon: own.horizon, level: [own.place] };
  const toward = (slope: number): PlateLine => [onSlope(own, 0, slope), onSlope(own, 0.4, slope)];
  const coping = [toward(-0.3), toward(-0.45)];
  const coverOf = (plate: Plane, foot: number) => {
    const light = plate.data.map((code) => (code / 255) ** 2);
    const ground = Float32Array.from(light, (_, i) => {
      const at = { u: ((i % width) + 0.5) / width, v: (Math.floor(i / width) + 0.5) / height };
      return Number(slopeOf(own, at) > foot);
    });
    const sky = new Float32Array(light.length);
    return { width, height, ground, sky, plate: { width, height, r: light, g: light, b: light } };
  };

  it('tells a wall of stone by its joints, on to the border of the picture', () => {
    const [wall] = guessWalls(coping, perspective, coverOf(plateOf(0.5), 0.5), own.aspect);
    expect(Math.abs(Math.log(slopeOf(own, wall.foot[1]) / 0.5))).toBeLessThan(0.14);
    expect(wall.foot[0].u).toBe(0);
    expect(wall.foot[1].u).toBeGreaterThan(0.38);
  });

  it('tells none where nothing runs there over the horizon, where no ground lies under it, or on the ground alone', () => {
    const stone = plateOf(0.5);
    expect(guessWalls([], perspective, coverOf(stone, 0.5), own.aspect)).toEqual([]);
    expect(guessWalls(coping, perspective, coverOf(stone, 9), own.aspect)).toEqual([]);
    expect(guessWalls(coping, perspective, coverOf(plateOf(0), 0), own.aspect)).toEqual([]);
  });
});
