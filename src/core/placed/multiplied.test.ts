import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { ClearPicture } from './clear-picture';
import { divideOut, isMultiplied } from './multiplied';

const SIDE = 64;

/** A soft disc of a colour, its colours multiplied by its coverage or not. */
function disc(color: readonly number[], multiplied: boolean, full = 255): ClearPicture {
  const data = full > 255 ? new Uint16Array(4 * SIDE * SIDE) : new Uint8Array(4 * SIDE * SIDE);
  for (let i = 0; i < SIDE * SIDE; i++) {
    const away = Math.hypot((i % SIDE) - 32, Math.floor(i / SIDE) - 32);
    const share = Math.min(1, Math.max(0, (30 - away) / 14));
    const alpha = Math.round(share * full);
    const by = multiplied ? alpha / full : 1;
    data.set([...color.map((value) => Math.round((value * full * by) / 255)), alpha], 4 * i);
  }
  return { data, width: SIDE, height: SIDE, full };
}

describe('colours that were multiplied by their coverage', () => {
  it.each([255, 65535])('are told from those that were not, bright or dark, of codes up to %i', (full) => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 12, max: 255 }), { minLength: 3, maxLength: 3 }), (color) => {
        expect(isMultiplied(disc(color, true, full))).toBe(true);
        expect(isMultiplied(disc(color, false, full))).toBe(false);
      }),
      { numRuns: 40 },
    );
  });

  it('come back when it is divided out, within the step that it cost them', () => {
    const [made, plain] = [disc([200, 120, 40], true), disc([200, 120, 40], false)];
    divideOut(made);
    for (let i = 0; i < made.data.length; i += 4) {
      const alpha = made.data[i + 3];
      if (alpha === 0) continue;
      for (let c = i; c < i + 3; c++)
        expect(Math.abs(made.data[c] - plain.data[c])).toBeLessThanOrEqual(1 + 128 / alpha);
    }
  });

  it('are not said of a picture that is all there, all clear, or black', () => {
    expect(isMultiplied({ ...disc([9, 9, 9], false), data: new Uint8Array(4 * SIDE * SIDE) })).toBe(false);
    expect(isMultiplied({ ...disc([9, 9, 9], false), data: new Uint8Array(4 * SIDE * SIDE).fill(255) })).toBe(
      false,
    );
  });
});
