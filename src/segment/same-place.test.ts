import { createRequire } from 'node:module';
import { beforeAll, describe, expect, it } from 'vitest';
import { seeded } from '@/core/fixture/seeded';
import { createPlaceMap } from '@/core/geometry/place-map';
import { whenReady, type OpenCv } from './opencv';
import type { Picture } from './picture';
import { samePlace } from './same-place';

let cv: OpenCv;
beforeAll(async () => {
  ({ cv } = await whenReady(createRequire(import.meta.url)('@techstark/opencv-js') as OpenCv));
});

const SIDE = { width: 480, height: 320 };

interface Block {
  u: number;
  v: number;
  wide: number;
  high: number;
  tone: number;
  near: boolean;
}

/** A place of many blocks of all sizes and tones; a tower of other blocks stands nearer to the eye than the rest. */
function placeOf(seed: number): Block[] {
  const random = seeded(seed);
  const block = (u: number, v: number, near: boolean): Block => ({
    ...{ u, v, near, tone: 30 + 200 * random() },
    ...{ wide: 0.01 + 0.05 * random(), high: 0.01 + 0.07 * random() },
  });
  const far = Array.from({ length: 420 }, () => block(1.4 * random() - 0.2, 1.4 * random() - 0.2, false));
  const tower = { u: 0.55, v: 0.25, wide: 0.3, high: 0.9, tone: 100, near: true };
  const own = Array.from({ length: 180 }, () => block(0.56 + 0.23 * random(), 0.26 + 0.7 * random(), true));
  return [...far, tower, ...own];
}

/** A photo of a place: `times` as large around a corner, with what is near moved aside, and darker by a factor. */
function photoOf(place: readonly Block[], times = 1, from = { u: 0, v: 0 }, aside = 0, dark = 1): Picture {
  const { width, height } = SIDE;
  const rgb = new Uint8Array(3 * width * height).fill(120 * dark);
  for (const { u, v, wide, high, tone, near } of place) {
    const left = (u - from.u + (near ? aside : 0)) * times;
    const [x0, x1] = [left, left + wide * times].map((at) => Math.round(at * width));
    const [y0, y1] = [(v - from.v) * times, (v + high - from.v) * times].map((at) => Math.round(at * height));
    for (let y = Math.max(0, y0); y < Math.min(height, y1); y++) {
      for (let x = Math.max(0, x0); x < Math.min(width, x1); x++)
        rgb.fill(tone * dark, 3 * (y * width + x), 3 * (y * width + x) + 3);
    }
  }
  return { width, height, rgb };
}

describe('samePlace', () => {
  const place = placeOf(3);
  const there = () => photoOf(place);

  it('finds where a closer, darker photo shows what the other does', () => {
    const match = samePlace(cv, photoOf(place, 1.2, { u: 0.1, v: 0.05 }, 0, 0.6), there())!;
    const { place: seen, times } = createPlaceMap(match.flat, match.known);
    for (const [u, v] of [
      [0.2, 0.2],
      [0.5, 0.5],
      [0.8, 0.7],
    ]) {
      const at = seen({ u, v });
      expect(Math.hypot(at.u - 1.2 * (u - 0.1), at.v - 1.2 * (v - 0.05))).toBeLessThan(0.004);
    }
    expect(times({ u: 0.5, v: 0.5 })).toBeCloseTo(1.2, 1);
  });

  it('follows what stands nearer where the eye has moved aside', () => {
    const match = samePlace(cv, photoOf(place, 1, { u: 0, v: 0 }, 0.03), there())!;
    const { place: seen } = createPlaceMap(match.flat, match.known);
    expect(seen({ u: 0.7, v: 0.6 }).u).toBeCloseTo(0.73, 2);
    expect(seen({ u: 0.2, v: 0.5 }).u).toBeCloseTo(0.2, 2);
  });

  it('says nothing of another place, of one that is plain, and of a mirror image', () => {
    const plain = { ...SIDE, rgb: new Uint8Array(3 * SIDE.width * SIDE.height).fill(90) };
    const turned = there();
    const mirrored = { ...turned, rgb: turned.rgb.slice() };
    for (let i = 0; i < SIDE.width * SIDE.height; i++) {
      const [x, y] = [i % SIDE.width, Math.floor(i / SIDE.width)];
      const k = 3 * (y * SIDE.width + (SIDE.width - 1 - x));
      mirrored.rgb.set(turned.rgb.subarray(k, k + 3), 3 * i);
    }
    for (const other of [photoOf(placeOf(8)), plain, mirrored])
      expect(samePlace(cv, there(), other)).toBeUndefined();
  });
});
