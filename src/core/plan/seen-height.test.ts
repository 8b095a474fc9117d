import { describe, expect, it } from 'vitest';
import { createCamera, project } from '../geometry/camera';
import { seenHeight } from './seen-height';

const CAMERA = createCamera({ horizon: { left: 0.5, right: 0.5 }, eyeHeight: 1.6, lens: 28 }, 1.5);
const SIZE = { width: 300, height: 200 };
const seen = (x: number, y: number, z: number) => project(CAMERA, [x, y, z])!;
const FOOT = [seen(-4, 8, 0), seen(-2, 20, 0)] as const;

/** Land up to a height over the foot, as a share along it says; sky over it. */
const landTo = (top: (share: number) => number) => {
  const skyBegins = Array.from({ length: SIZE.width }, (_, x) => {
    const away = (k: number) =>
      Math.abs(seen(-4 + k / 100, 8 + (12 * k) / 200, 0).u - (x + 0.5) / SIZE.width);
    const steps = Array.from({ length: 201 }, (_, k) => k);
    const share = steps.reduce((best, k) => (away(k) < away(best) ? k : best)) / 200;
    return seen(-4 + 2 * share, 8 + 12 * share, top(share)).v;
  });
  return Float32Array.from({ length: SIZE.width * SIZE.height }, (_, i) =>
    (Math.floor(i / SIZE.width) + 0.5) / SIZE.height > skyBegins[i % SIZE.width] ? 1 : 0,
  );
};

describe('seenHeight', () => {
  it('is where sky begins over the foot, chimneys apart', () => {
    expect(seenHeight(CAMERA, FOOT, { ...SIZE, land: landTo(() => 5) })).toBeCloseTo(5, 0);
    const chimneys = landTo((share) => (share > 0.45 && share < 0.5 ? 8 : 5));
    expect(seenHeight(CAMERA, FOOT, { ...SIZE, land: chimneys })).toBeLessThan(5.6);
  });

  it('reaches beyond the edge of a picture that ends before it', () => {
    const all = new Float32Array(SIZE.width * SIZE.height).fill(1);
    expect(seenHeight(CAMERA, FOOT, { ...SIZE, land: all })!).toBeGreaterThan(7);
  });

  it('is not told of a wall that is not seen', () => {
    const none = new Float32Array(SIZE.width * SIZE.height);
    expect(seenHeight(CAMERA, FOOT, { ...SIZE, land: none })).toBeUndefined();
    const aside = [
      { u: 1.2, v: 0.7 },
      { u: 1.5, v: 0.8 },
    ] as const;
    expect(seenHeight(CAMERA, aside, { ...SIZE, land: none.fill(1) })).toBeUndefined();
  });
});
