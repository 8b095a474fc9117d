import { describe, expect, it } from 'vitest';
import { newScene } from '../scene/new-scene';
import { parseScene } from '../scene/parse-scene';
import { blendNights } from './blend-nights';
import { NOCTURNES } from './nocturnes';
import { startingNight } from './starting-night';

const from = startingNight(0.2);
const scene = newScene('Test', { asset: '0'.repeat(64), width: 100, height: 100 });

describe('blendNights', () => {
  it('begins and ends at its nights, with kelvin in mireds between', () => {
    const to = { ...startingNight(0.8), kelvin: 12000 };
    expect(blendNights(from, to, 0)).toBe(from);
    expect(blendNights(from, to, 1)).toBe(to);
    const half = blendNights({ ...from, kelvin: 4000, exposure: -1 }, { ...to, exposure: -3 }, 0.5);
    expect(half.kelvin).toBeCloseTo(6000, 6);
    expect(half.exposure).toBeCloseTo(-2, 9);
  });

  it('is a night that a scene can have between any two, and lies between them at every tone', () => {
    for (const { night: to } of NOCTURNES) {
      for (const strength of [0.01, 0.4, 0.77]) {
        const night = blendNights(from, to, strength);
        expect(parseScene({ ...scene, night }).night).toEqual(night);
      }
    }
  });

  it('fades a look-up table in, or out', () => {
    const lut = { asset: 'a'.repeat(64), name: 'made up', strength: 0.8 };
    expect(blendNights(from, { ...from, lut }, 0.25).lut?.strength).toBeCloseTo(0.2, 9);
    expect(blendNights({ ...from, lut }, from, 0.25).lut?.strength).toBeCloseTo(0.6, 9);
  });
});
