import { describe, expect, it } from 'vitest';
import { seeded } from '../fixture/seeded';
import { edgeLines } from './edge-lines';

const [width, height] = [80, 60];
const EDGE = 40;

/** A wall of so much grain, codes, with edges of a step: one, or bars from there on, each so broad. */
function wall(grain: number, step: number, bars = width) {
  const random = seeded(7);
  const data = Float32Array.from(
    { length: width * height },
    (_, i) => 90 + (Math.floor(((i % width) - EDGE) / bars + 2) % 2 ? 0 : step) + grain * (2 * random() - 1),
  );
  return { width, height, data };
}

describe('edgeLines', () => {
  it('sees an edge along its whole line, the lines beside it nearly as well, and others not at all', () => {
    const { seen, strength } = edgeLines(wall(0, 20), true);
    expect(seen(EDGE, 0, height)).toBeCloseTo(1, 6);
    expect(seen(EDGE + 1, 5, 20)).toBeGreaterThan(0.7);
    expect(seen(10, 0, height)).toBe(0);
    expect(strength(EDGE, 0, height)).toBeCloseTo(10, 6);
    expect(edgeLines(wall(0, 20), false).seen(20, 0, width)).toBe(0);
  });

  it('takes grain for no edge, however strong, while it sees one under it', () => {
    const { seen } = edgeLines(wall(12, 40, 10), true);
    expect(seen(EDGE, 0, height)).toBeGreaterThan(0.9);
    for (const line of [6, 25, 45, 65]) expect(seen(line, 0, height)).toBeLessThan(0.4);
  });

  it('tells nothing of no stretch, and of what lies outside', () => {
    const { seen } = edgeLines(wall(3, 20), true);
    expect(seen(EDGE, 9, 9)).toBe(0);
    expect(seen(EDGE, -20, 0)).toBe(0);
    expect(seen(EDGE, height - 1, height + 40)).toBeGreaterThan(0);
  });
});
