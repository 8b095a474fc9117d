import { describe, expect, it } from 'vitest';
import type { RgbPlanes } from '../plane/plane';
import { wholeRegion } from '../plane/region';
import { createCamera } from '../geometry/camera';
import { findFeet } from './find-feet';
import { findGround } from './find-ground';
import { findSky } from './find-sky';
import { plateFeatures } from './plate-features';
import { reliefOf } from '../relief/relief';
import { RELIEF_PLANES, type Relief } from '../relief/relief-planes';
import { columnsOfWalls, coverOfWalls, toldWalls, type WallColumn } from './told-walls';
import { surveyPlate } from './survey';

const WIDTH = 120;
const HEIGHT = 80;
const HORIZON = { left: 0.5, right: 0.5 };

/** A made-up street: blue sky, a red house whose foot is at row 50, grey paving below, and a dark post on it. */
function street(): RgbPlanes {
  const size = WIDTH * HEIGHT;
  const plate = {
    width: WIDTH,
    height: HEIGHT,
    r: new Float32Array(size),
    g: new Float32Array(size),
    b: new Float32Array(size),
  };
  for (let i = 0; i < size; i++) {
    const [x, y] = [i % WIDTH, Math.floor(i / WIDTH)];
    const grain = 0.01 * ((x * 7 + y * 13) % 5);
    const sky = y < 20;
    const post = x >= 30 && x < 33 && y >= 25 && y < 70;
    const house = y >= 20 && y < 50;
    const color = post
      ? [0.01, 0.01, 0.01]
      : sky
        ? [0.3, 0.45, 0.8]
        : house
          ? [0.4, 0.12, 0.08]
          : [0.35, 0.34, 0.33];
    [plate.r[i], plate.g[i], plate.b[i]] = color.map((c) => c + (sky ? 0 : grain));
  }
  return plate;
}

const at = (x: number, y: number) => y * WIDTH + x;

describe('survey', () => {
  const features = plateFeatures(street());
  const sky = findSky(features, HORIZON);
  const ground = findGround(features, HORIZON, sky);

  it('believes a drawn wall: it stands down to its foot, and under it ground begins, but not on a post before it', () => {
    // A pavement of another tone lies between the house and the road.
    const plate = street();
    const pavement = (y: number) => y >= 50 && y < 60;
    for (let i = 0; i < WIDTH * HEIGHT; i++) {
      const y = Math.floor(i / WIDTH);
      const isPost = i % WIDTH >= 30 && i % WIDTH < 33;
      if (pavement(y) && !isPost) [plate.r[i], plate.g[i], plate.b[i]] = [0.55, 0.3, 0.16];
    }
    const own = plateFeatures(plate);
    const ownSky = findSky(own, HORIZON);
    expect(findGround(own, HORIZON, ownSky)[at(80, 55)]).toBe(0);
    const wall = {
      foot: [
        { u: 0, v: 0.625 },
        { u: 1, v: 0.625 },
      ],
      height: 6,
    };
    const told = findGround(own, HORIZON, ownSky, toldWalls([wall], 1.6));
    expect(told[at(80, 55)]).toBe(1);
    expect(told[at(80, 47)]).toBe(0);
    expect(told[at(80, 70)]).toBe(1);
    expect(told[at(31, 52)]).toBe(0);
  });

  it('sees over a told wall that is lower than the eye', () => {
    const wall = {
      foot: [
        { u: 0, v: 0.75 },
        { u: 1, v: 0.75 },
      ],
      height: 0.8,
    };
    const { wall: stands, under } = coverOfWalls(toldWalls([wall], 1.6), HORIZON, WIDTH, HEIGHT);
    expect([stands[at(60, 45)], stands[at(60, 52)], stands[at(60, 59)]]).toEqual([0, 1, 1]);
    expect([under[at(60, 59)], under[at(60, 60)], under[at(60, 63)]]).toEqual([0, 1, 0]);
  });

  it('finds the sky and nothing else', () => {
    expect(sky[at(60, 5)]).toBe(1);
    expect(sky[at(60, 30)]).toBe(0);
    expect(sky[at(60, 75)]).toBe(0);
  });

  it('ends at a pale roof, and goes on behind a wire', () => {
    const plate = street();
    for (let i = 0; i < WIDTH * HEIGHT; i++) {
      const [x, y] = [i % WIDTH, Math.floor(i / WIDTH)];
      if (y >= 8 && y < 20 && x > 70) [plate.r[i], plate.g[i], plate.b[i]] = [0.2, 0.28, 0.4];
      if (y === 5) [plate.r[i], plate.g[i], plate.b[i]] = [0.02, 0.02, 0.02];
    }
    const found = findSky(plateFeatures(plate), HORIZON);
    expect([found[at(30, 15)], found[at(100, 3)], found[at(100, 15)]]).toEqual([1, 1, 0]);
  });

  it('finds the sky between leaves', () => {
    const plate = street();
    const isLeaf = (x: number, y: number) => (x >> 1) % 2 === 0 && (y >> 1) % 2 === 0;
    for (let y = 6; y < 16; y++) {
      for (let x = 40; x < 60; x++) {
        if (isLeaf(x, y)) for (const c of ['r', 'g', 'b'] as const) plate[c][at(x, y)] = 0.01;
      }
    }
    const found = findSky(plateFeatures(plate), HORIZON);
    let open = 0;
    for (let y = 6; y < 16; y++) {
      for (let x = 40; x < 60; x++) {
        if (!isLeaf(x, y)) open += found[at(x, y)];
      }
    }
    expect(open).toBeGreaterThan(120);
  });

  it('finds leaves where it is green and busy, and neither paint nor gravel', () => {
    const plate = street();
    const patch = (left: number, rgb: (dark: boolean) => number[]) => {
      for (let y = 24; y < 44; y++) {
        for (let x = left; x < left + 20; x++) {
          const color = rgb(((x * 7 + y * 13) * 2654435761) % 5 < 2);
          (['r', 'g', 'b'] as const).forEach((c, k) => (plate[c][at(x, y)] = color[k]));
        }
      }
    };
    patch(45, (dark) => (dark ? [0.01, 0.02, 0.006] : [0.09, 0.16, 0.04]));
    patch(70, () => [0.05, 0.12, 0.05]);
    patch(95, (dark) => (dark ? [0.02, 0.02, 0.02] : [0.16, 0.15, 0.14]));
    const { leaves } = surveyPlate(plate, HORIZON);
    expect(leaves[at(55, 34)]).toBeGreaterThan(0.95);
    expect([leaves[at(80, 34)], leaves[at(105, 34)], leaves[at(60, 75)]]).toEqual([0, 0, 0]);
  });

  it('stands what is seen over a wall behind it, though it is like what stands at the end of the lane', () => {
    const [far, near] = [Math.round(0.41 * HEIGHT), Math.round(0.75 * HEIGHT)];
    const plate = street();
    const fill = (from: number, until: number, left: number, right: number, tone: number) => {
      for (let y = from; y < until; y++)
        for (let x = left; x < right; x++)
          for (const c of ['r', 'g', 'b'] as const) plate[c][at(x, y)] = tone;
    };
    fill(0, HEIGHT, 0, WIDTH, 0.3);
    fill(10, far, 0, WIDTH, 0.05);
    fill(far - 8, near, 0, 50, 0.15);
    const own = new Uint8Array(WIDTH * HEIGHT).fill(1);
    for (let y = 0; y < HEIGHT; y++)
      for (let x = 0; x < WIDTH; x++) if (y < (x < 50 ? near : far)) own[at(x, y)] = 0;
    const wall = {
      from: { u: 0, v: near / HEIGHT },
      to: { u: 50 / WIDTH, v: near / HEIGHT },
      rises: (near - far + 8) / (near - far),
    };
    const feet = (walls: WallColumn[]) =>
      findFeet(plateFeatures(plate), own, new Uint8Array(WIDTH * HEIGHT), { walls });
    expect(feet([])[at(15, 20)]).toBeCloseTo(far / HEIGHT, 2);
    const found = feet(columnsOfWalls([wall], { left: far / HEIGHT, right: far / HEIGHT }, WIDTH));
    // As far below the horizon as what is 1.3 times as far off.
    expect(found[at(15, 20)]).toBeCloseTo((far + (near - far) / 1.3) / HEIGHT, 2);
    expect(found[at(100, 20)]).toBeCloseTo(far / HEIGHT, 2);
  });

  it('finds the ground up to the foot of the house', () => {
    expect(ground[at(60, 75)]).toBe(1);
    expect(ground[at(60, 53)]).toBe(1);
    expect(ground[at(60, 46)]).toBe(0);
    expect(ground[at(60, 30)]).toBe(0);
  });

  it('stands the house on its own foot, also above the post', () => {
    const feet = findFeet(features, ground, sky, { walls: [] });
    const houseFoot = feet[at(80, 30)];
    expect(houseFoot).toBeCloseTo(50 / HEIGHT, 1);
    expect(feet[at(31, 22)]).toBeCloseTo(houseFoot, 1);
  });

  it('makes a relief without a hole: ground, house and sky each where they are', () => {
    const survey = surveyPlate(street(), HORIZON);
    const camera = createCamera({ horizon: HORIZON, eyeHeight: 1.6, lens: 36 }, WIDTH / HEIGHT);
    const relief = Object.fromEntries(
      RELIEF_PLANES.map((name) => [name, new Float32Array(WIDTH * HEIGHT)]),
    ) as unknown as Relief;
    reliefOf(relief, street(), survey, camera, wholeRegion(WIDTH, HEIGHT));
    for (const name of RELIEF_PLANES) expect(relief[name].every(Number.isFinite)).toBe(true);
    expect(relief.normalZ[at(60, 75)]).toBeCloseTo(1, 1);
    expect(relief.normalY[at(80, 30)]).toBeCloseTo(-1, 1);
    expect(relief.land[at(60, 5)]).toBeLessThan(0.05);
    expect(relief.land[at(80, 30)]).toBeGreaterThan(0.95);
    expect(relief.unknownFacing[at(80, 30)]).toBeGreaterThan(0.95);
  });
});

it('a plate of one colour, of black, or of one column still gives a survey of numbers', () => {
  for (const [width, height, value] of [
    [40, 30, 0.5],
    [40, 30, 0],
    [1, 200, 0.3],
    [200, 1, 0.3],
  ]) {
    const plane = () => new Float32Array(width * height).fill(value);
    const survey = surveyPlate({ width, height, r: plane(), g: plane(), b: plane() }, HORIZON);
    expect(survey.feet.every(Number.isFinite)).toBe(true);
    expect(survey.ground.slope.every(Number.isFinite)).toBe(true);
    expect(survey.medianLuminance).toBeGreaterThan(0);
  }
});
