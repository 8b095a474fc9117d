import { describe, expect, it } from 'vitest';
import { stopsTooBright } from './stops-too-bright';

const PIXELS = 1000;

/** Grey land whose lightest share is so light, the rest a tenth. */
function landOf(share: number, light: number) {
  const grey = Float32Array.from({ length: PIXELS }, (_, i) => (i < share * PIXELS ? light : 0.1));
  return { width: PIXELS, height: 1, r: grey, g: grey, b: grey };
}

const ALL = new Float32Array(PIXELS).fill(1);

describe('how much too bright light is', () => {
  it('is told in stops over white, where more than a twentieth burns out', () => {
    expect(stopsTooBright(landOf(0.2, 4), ALL)).toBeCloseTo(2, 5);
    expect(stopsTooBright(landOf(0.2, 8), ALL)).toBeCloseTo(3, 5);
  });

  it('is nothing under small pools of light, under what is no brighter than white, and without light', () => {
    expect(stopsTooBright(landOf(0.03, 40), ALL)).toBe(0);
    expect(stopsTooBright(landOf(0.5, 0.9), ALL)).toBe(0);
    expect(stopsTooBright(landOf(1, 0), ALL)).toBe(0);
  });

  it('counts land alone', () => {
    const rest = ALL.map((_, i) => (i < PIXELS / 2 ? 0 : 1));
    expect(stopsTooBright(landOf(0.5, 30), rest)).toBe(0);
    expect(stopsTooBright(landOf(0.5, 30), new Float32Array(PIXELS))).toBe(0);
  });
});
