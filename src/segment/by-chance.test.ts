import { describe, expect, it } from 'vitest';
import { seeded } from '@/core/fixture/seeded';
import { beyondChance } from './by-chance';

const [COLUMNS, ROWS] = [200, 120];
const LIMITS = { apart: 4, least: 0.3, most: 200 } as const;

/** Noise between 0 and `high`, with higher places in it. */
function noise(high: number, places: readonly (readonly [x: number, y: number, score: number])[]) {
  const random = seeded(11);
  const plane = Float32Array.from({ length: COLUMNS * ROWS }, () => high * random());
  for (const [x, y, score] of places) plane[y * COLUMNS + x] = score;
  return plane;
}

const inBand = (_: number, y: number) => y >= 50 && y < 60;
const tell = { mayBe: inBand, isOther: () => true, isAlike: () => true };

describe('beyondChance', () => {
  it('keeps what stands out of what is beside, and drops what is as good there', () => {
    const plane = noise(0.6, [
      [40, 55, 0.75],
      [150, 52, 0.9],
    ]);
    const found = beyondChance(plane, COLUMNS, LIMITS, tell, 0.1);
    expect(found.map(({ x, y }) => [x, y])).toEqual([
      [150, 52],
      [40, 55],
    ]);
  });

  it('drops a place where many as good lie beside, and keeps it where it may be anywhere', () => {
    const beside = [10, 40, 70, 100, 130, 160].map((x) => [x, 20, 0.8] as const);
    const plane = noise(0.2, [[90, 55, 0.8], ...beside]);
    expect(beyondChance(plane, COLUMNS, LIMITS, tell, 0.1)).toEqual([]);
    expect(beyondChance(plane, COLUMNS, LIMITS, { ...tell, mayBe: () => true }, 0.1)).toHaveLength(7);
  });

  it('counts nothing that is the thing itself, nor what does not stand a closer look', () => {
    const plane = noise(0.2, [
      [90, 55, 0.7],
      [20, 20, 0.9],
      [60, 20, 0.9],
    ]);
    const strict = { ...tell, isOther: (x: number) => x !== 20, isAlike: ({ x }: { x: number }) => x !== 60 };
    expect(beyondChance(plane, COLUMNS, LIMITS, strict, 0.05).map(({ x }) => x)).toEqual([90]);
    expect(beyondChance(plane, COLUMNS, LIMITS, tell, 0.05)).toEqual([]);
  });
});
