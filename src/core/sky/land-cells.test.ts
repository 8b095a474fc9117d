import fc from 'fast-check';
import { expect, it } from 'vitest';
import { seeded } from '../fixture/seeded';
import { bilinearRow } from '../plane/bilinear-row';
import type { Region } from '../plane/region';
import { landCells, openBoxes } from './land-cells';

const SMALL = { width: 43, height: 29 };

/** A small copy in patches of land alone and of all else. */
function madeUp(seed: number) {
  const random = seeded(seed);
  const patches = Array.from({ length: 40 }, () => random() < 0.6);
  const isLand = (i: number) =>
    patches[8 * Math.floor(Math.floor(i / SMALL.width) / 6) + Math.floor((i % SMALL.width) / 6)];
  const plane = (on: number, off: number) =>
    Float32Array.from({ length: SMALL.width * SMALL.height }, (_, i) => (isLand(i) ? on : off));
  return { ...SMALL, withinLand: plane(1, 0.4), nearSky: plane(0, 0.3) };
}

const regions = fc
  .record({
    scale: fc.constantFrom(1, 1.7, 4),
    left: fc.integer({ min: 0, max: 30 }),
    top: fc.integer({ min: 0, max: 20 }),
    width: fc.integer({ min: 4, max: 200 }),
    height: fc.integer({ min: 4, max: 200 }),
  })
  .map(({ scale, left, top, width, height }): Region => {
    const [fullWidth, fullHeight] = [Math.round(43 * scale), Math.round(29 * scale)];
    const within = { width: Math.min(width, fullWidth - left), height: Math.min(height, fullHeight - top) };
    return { fullWidth, fullHeight, left, top, ...within };
  })
  .filter(({ width, height }) => width > 0 && height > 0);

it('boxes hold every place that is not plainly land, none twice, and nothing beyond the region', () => {
  fc.assert(
    fc.property(fc.integer({ min: 1, max: 2 ** 31 }), regions, (seed, region) => {
      const small = madeUp(seed);
      const times = new Uint8Array(region.width * region.height);
      for (const { left, right, top, bottom } of openBoxes(landCells(small), small, region)) {
        expect(left >= 0 && top >= 0 && right <= region.width && bottom <= region.height).toBe(true);
        for (let y = top; y < bottom; y++) for (let x = left; x < right; x++) times[y * region.width + x]++;
      }
      expect(Math.max(...times)).toBeLessThanOrEqual(1);
      const row = new Float32Array(region.width);
      for (let y = 0; y < region.height; y++) {
        bilinearRow(row, { ...SMALL, data: small.withinLand }, region, y);
        for (let x = 0; x < region.width; x++)
          if (row[x] < 0.999) expect(times[y * region.width + x]).toBe(1);
      }
    }),
  );
});

it('nothing is open where all is land, and all where none is', () => {
  const of = (land: number) => ({
    ...SMALL,
    withinLand: new Float32Array(SMALL.width * SMALL.height).fill(land),
    nearSky: new Float32Array(SMALL.width * SMALL.height),
  });
  const region = { fullWidth: 86, fullHeight: 58, left: 3, top: 5, width: 70, height: 40 };
  expect(openBoxes(landCells(of(1)), SMALL, region)).toEqual([]);
  const area = openBoxes(landCells(of(0)), SMALL, region).reduce(
    (sum, { left, right, top, bottom }) => sum + (right - left) * (bottom - top),
    0,
  );
  expect(area).toBe(70 * 40);
});
