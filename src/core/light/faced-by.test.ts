import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { facedBy } from './faced-by';

/** The same of a sphere, by summing the radiance of its disc over the directions above the surface's horizon. */
function summed(cosine: number, size: number): number {
  const STEPS = 400;
  const [sine, wide] = [Math.sqrt(1 - cosine * cosine), Math.asin(size)];
  let sum = 0;
  for (let j = 0; j < STEPS; j++) {
    const away = ((j + 0.5) / STEPS) * wide;
    for (let k = 0; k < STEPS; k++) {
      const turn = ((k + 0.5) / STEPS) * 2 * Math.PI;
      const faced = Math.cos(away) * cosine + Math.sin(away) * Math.cos(turn) * sine;
      sum += Math.max(0, faced) * Math.sin(away);
    }
  }
  return (sum * (wide / STEPS) * (2 * Math.PI)) / STEPS / Math.PI / (size * size);
}

describe('facedBy', () => {
  it('is the cosine of the middle where the whole source is before the surface, and 0 where all is behind', () => {
    expect(facedBy(0.8, 0.1)).toBeCloseTo(0.8, 12);
    expect(facedBy(0.1, 0.1)).toBeCloseTo(0.1, 12);
    expect(facedBy(-0.1, 0.1)).toBeCloseTo(0, 12);
    expect(facedBy(-0.5, 0.1)).toBe(0);
    expect(facedBy(0.5, 0)).toBe(0.5);
  });

  it('comes near to the sum over a sphere that the horizon cuts, within a twentieth of its size', () => {
    for (const size of [0.05, 0.2, 0.4]) {
      for (const part of [-0.9, -0.5, 0, 0.5, 0.9, 2]) {
        const cosine = part * size;
        expect(Math.abs(facedBy(cosine, size) - summed(cosine, size))).toBeLessThan(0.05 * size);
      }
    }
  });

  it('grows steadily with the cosine, never faster than it', () => {
    const share = fc.double({ min: -1, max: 1, noNaN: true });
    const size = fc.double({ min: 0.001, max: 1, noNaN: true });
    fc.assert(
      fc.property(share, fc.double({ min: 0, max: 0.1, noNaN: true }), size, (cosine, more, wide) => {
        const grown = facedBy(cosine + more, wide) - facedBy(cosine, wide);
        expect(grown).toBeGreaterThanOrEqual(-1e-12);
        expect(grown).toBeLessThanOrEqual(more + 1e-12);
      }),
    );
  });
});
