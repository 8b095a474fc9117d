import { describe, expect, it } from 'vitest';
import { srgb } from '@/core/color/srgb';
import { dayCodes } from './day-codes';

const [width, height] = [60, 40];

/** A grey picture, a ramp from dark to light, of so much of its light. */
const ramp = (gain: number) => ({
  ...{ width, height },
  rgb: Uint8Array.from({ length: 3 * width * height }, (_, i) => {
    const light = srgb.decode((Math.floor(i / 3) % width) / (width - 1));
    return Math.round(255 * srgb.encode(gain * light));
  }),
});

describe('codes as of a day', () => {
  it('leave a light picture alone', () => {
    const light = ramp(1);
    expect(dayCodes(light)).toBe(light);
  });

  it('lift a dark one to the tones of a light one, clipping at white', () => {
    const codes = (gain: number) => dayCodes(ramp(gain)).rgb;
    const [two, three] = [codes(1 / 4), codes(1 / 8)];
    for (let x = 0; x < 50; x++) expect(Math.abs(two[3 * x] - three[3 * x])).toBeLessThanOrEqual(6);
    expect(two[3 * 40]).toBeGreaterThan(1.5 * ramp(1 / 4).rgb[3 * 40]);
    expect(Math.max(...two)).toBeLessThanOrEqual(255);
  });

  it('bear a black picture', () => {
    expect(Math.max(...dayCodes({ width, height, rgb: new Uint8Array(3 * width * height) }).rgb)).toBe(0);
  });
});
