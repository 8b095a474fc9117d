import { describe, expect, it } from 'vitest';
import { createCamera, project } from '../geometry/camera';
import { rowsOf, wholeRegion } from '../plane/region';
import { driftAhead, driftCover, type NearLamp } from './drift-cover';
import { driftGlow, layGlow } from './drift-glow';
import { FIRST_DRIFT, type Drift } from './drift-schema';

const CAMERA = createCamera({ horizon: { left: 0.5, right: 0.5 }, eyeHeight: 1.6, lens: 36 }, 1.5);
const REGION = wholeRegion(120, 80);
const DRIFT: Drift = {
  ...FIRST_DRIFT,
  ...{ id: 'd', name: 'Drift', at: { u: 0.5, v: 0.5 }, foot: project(CAMERA, [0, 10, 0])! },
};
const MIDDLE = 40 * 120 + 60;

/** A surface so many metres ahead everywhere, or the sky. */
const lie = (reach: number, land = 1, pixels = 9600) => ({
  reach: new Float32Array(pixels).fill(reach),
  land: new Float32Array(pixels).fill(land),
});

function covered(more: Partial<Drift> = {}, relief = lie(100), lamps: NearLamp[] = [], region = REGION) {
  const out = new Float32Array(region.width * region.height);
  driftCover(out, relief, CAMERA, region, { ...DRIFT, ...more }, lamps);
  return out;
}

describe('a drift', () => {
  it('stands as far off as its foot, and holds back what its density says in its middle', () => {
    expect(driftAhead(CAMERA, DRIFT)).toBeCloseTo(10, 6);
    for (const density of [0.2, 0.6, 1])
      expect(covered({ density, wisps: 0 })[MIDDLE]).toBeCloseTo(0.97 * density, 2);
    expect(covered({ density: 0 }).every((value) => value === 0)).toBe(true);
    const beyond = Math.round(120 * (0.5 + DRIFT.size)) + 1;
    expect(covered()[40 * 120 + beyond]).toBe(0);
  });

  it('is hidden by what stands nearer, cut softly by what stands in it, and seen before the sky', () => {
    const mean = (out: Float32Array) => out.reduce((sum, value) => sum + value, 0);
    const free = mean(covered());
    expect(mean(covered({}, lie(5)))).toBe(0);
    const within = mean(covered({}, lie(10)));
    expect(within).toBeGreaterThan(0.2 * free);
    expect(within).toBeLessThan(0.8 * free);
    expect(mean(covered({}, lie(1, 0)))).toBeCloseTo(free, 3);
  });

  it('does not dim a lamp that hangs before it', () => {
    const lamp = { at: { u: 0.5, v: 0.5 }, size: 0.02 };
    const out = covered({ wisps: 0 }, lie(100), [lamp]);
    expect(out[MIDDLE]).toBe(0);
    expect(out[MIDDLE + 12]).toBeCloseTo(covered({ wisps: 0 })[MIDDLE + 12], 6);
  });

  it('is torn the same for a seed, in every band and, but for its finest wisps, at every size', () => {
    const whole = covered();
    const band = rowsOf(REGION, 32, 16);
    expect(covered({}, lie(100, 1, 16 * 120), [], band)).toEqual(whole.slice(32 * 120, 48 * 120));
    expect(covered({ seed: 2 })).not.toEqual(whole);
    expect(covered({ carried: 1 })).not.toEqual(whole);
    const fine = covered({}, lie(100, 1, 4 * 9600), [], wholeRegion(240, 160));
    let apart = 0;
    for (let y = 0; y < 80; y++)
      for (let x = 0; x < 120; x++) {
        const four = [0, 1, 240, 241].map((step) => fine[2 * y * 240 + 2 * x + step]);
        apart = Math.max(apart, Math.abs(four.reduce((a, b) => a + b, 0) / 4 - whole[y * 120 + x]));
      }
    expect(apart).toBeLessThan(0.06);
  });

  it('sends on albedo * I / (4 pi d^2) of a lamp beside it, and what a beam throws on it', () => {
    const lamp = {
      place: [3, 10, 1.6] as [number, number, number],
      spillCandela: 100,
      airCandela: 0,
      radius: 0,
    };
    const { data, width } = driftGlow(CAMERA, { ...DRIFT, size: 0.02 }, [lamp]);
    const middle = data[(width / 2) * width + width / 2];
    expect(middle).toBeCloseTo((0.9 * 100) / (4 * Math.PI * (9 + 0.35 ** 2)), 1);
    const away = driftGlow(CAMERA, DRIFT, [{ ...lamp, facing: [1, 0, 0], focus: 3 }]);
    expect(Math.max(...away.data)).toBe(0);
    const toward = driftGlow(CAMERA, { ...DRIFT, size: 0.02 }, [{ ...lamp, facing: [-1, 0, 0], focus: 3 }]);
    expect(toward.data[(width / 2) * width + width / 2]).toBeCloseTo(middle, 1);
  });

  it('comes before what lies behind it by what it covers', () => {
    const out = new Float32Array(9600).fill(2);
    const cover = new Float32Array(9600).fill(0.25);
    cover[0] = 0;
    layGlow(out, cover, { width: 2, height: 2, data: new Float32Array(4).fill(6) }, DRIFT, 1.5, REGION);
    expect(out[0]).toBe(2);
    expect(out[MIDDLE]).toBeCloseTo(0.75 * 2 + 0.25 * 6, 5);
  });
});
