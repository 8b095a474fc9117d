import { describe, expect, it } from 'vitest';
import { createCamera, project } from '../geometry/camera';
import type { Vec3 } from '../geometry/vec3';
import { normalize } from '../geometry/vec3';
import { wholeRegion } from '../plane/region';
import { behindSkyline, throughCloud, type SkyWeights } from './behind-skyline';
import { cloudCover, type CloudSettings } from './clouds';
import { projectDirection, skyDirection } from './direction';
import { fittedPlace } from './fitted-place';
import {
  createMoonDisc,
  createMoonGround,
  forwardScatter,
  litShare,
  MOON_RADIUS,
  phaseLight,
} from './moon-disc';
import { createPictureLayer, meanLuminance, type LaidPicture } from './sky-picture';

const [W, H] = [150, 100];
const CAMERA = createCamera({ horizon: { left: 0.7, right: 0.7 }, eyeHeight: 1.6, lens: 28 }, 1.5);
const CLOUDS: CloudSettings = { cover: 0.5, soft: 0.5, size: 1, height: 1200, drift: 0, seed: 1 };
const OPEN = { width: 1, height: 1, data: Float32Array.of(0) };
const flat = (value: number, n = W * H) => new Float32Array(n).fill(value);
const rgb = (value: number) => ({ width: W, height: H, r: flat(value), g: flat(value), b: flat(value) });
const mean = (plane: Float32Array) => plane.reduce((a, b) => a + b) / plane.length;

const GROUND = createMoonGround();

describe('clouds', () => {
  const cover = (settings: Partial<CloudSettings> = {}, region = wholeRegion(W, H)) => {
    const out = new Float32Array(region.width * region.height);
    cloudCover(out, CAMERA, region, { ...CLOUDS, ...settings }, OPEN);
    return out;
  };

  it('cover nothing, about as much as they should, and all', () => {
    expect(Math.max(...cover({ cover: 0 }))).toBe(0);
    expect(Math.min(...cover({ cover: 1, soft: 0 }))).toBeGreaterThan(0.9);
    const means = [0.1, 0.3, 0.5, 0.7, 0.9].map((share) => mean(cover({ cover: share }).subarray(0, 60 * W)));
    means.slice(1).forEach((value, k) => expect(value).toBeGreaterThan(means[k]));
    expect(means[2]).toBeGreaterThan(0.25);
    expect(means[2]).toBeLessThan(0.75);
  });

  it('run together toward the horizon, where they are all one sheet', () => {
    const out = cover({ height: 400 });
    const spread = (y: number) => {
      const row = out.subarray(y * W, (y + 1) * W);
      return Math.max(...row) - Math.min(...row);
    };
    expect(spread(68)).toBeLessThan(0.5 * spread(10));
  });

  it('are the same by their seed, in any part, and others by another', () => {
    const whole = cover();
    expect(cover()).toEqual(whole);
    expect(cover({ seed: 2 })).not.toEqual(whole);
    const part = cover({}, { ...wholeRegion(W, H), left: 30, top: 20, width: 40, height: 10 });
    expect(part[0]).toBeCloseTo(whole[20 * W + 30], 6);
    expect(part[399]).toBeCloseTo(whole[29 * W + 69], 6);
  });

  it('move with the wind and are none where land hides them', () => {
    const [still, moved] = [cover({ soft: 0.2 }), cover({ soft: 0.2, drift: 2 })];
    expect(still).not.toEqual(moved);
    const out = new Float32Array(W * H);
    cloudCover(out, CAMERA, wholeRegion(W, H), CLOUDS, { ...OPEN, data: Float32Array.of(1) });
    expect(Math.max(...out)).toBe(0);
  });
});

describe('the moon', () => {
  const toward = skyDirection({ azimuth: 10, elevation: 20 });
  const beside = (aside: number, above: number): Vec3 => {
    const right: Vec3 = normalize([toward[1], -toward[0], 0]);
    return normalize([
      toward[0] + aside * right[0],
      toward[1] + aside * right[1],
      toward[2] + above * Math.cos((20 * Math.PI) / 180) + aside * right[2],
    ]);
  };
  const light = (phase: number, size = 1, tilt = 0) => {
    const disc = createMoonDisc(toward, { phase, size, tilt }, 1e-5, GROUND);
    let [all, right] = [0, 0];
    for (let x = -1.2; x <= 1.2; x += 0.04)
      for (let y = -1.2; y <= 1.2; y += 0.04) {
        const value = disc(beside(x * MOON_RADIUS * size, y * MOON_RADIUS * size));
        all += value;
        if (x > 0) right += value;
      }
    return { all, right: right / all };
  };

  it('is a disc of its size with nothing beside it', () => {
    const disc = createMoonDisc(toward, { phase: 0.5, size: 2, tilt: 0 }, 1e-5, GROUND);
    expect(disc(toward)).toBeGreaterThan(0.2);
    expect(disc(beside(2.2 * MOON_RADIUS, 0))).toBe(0);
    expect(disc(beside(1.9 * MOON_RADIUS, 0))).toBeGreaterThan(0);
    expect(disc([-toward[0], -toward[1], -toward[2]])).toBe(0);
  });

  it('is lit from the right while it waxes, from the left while it wanes, and little when new', () => {
    expect(light(0.25).right).toBeGreaterThan(0.9);
    expect(light(0.75).right).toBeLessThan(0.1);
    expect(light(0.25, 1, 180).right).toBeLessThan(0.1);
    const [full, half, none] = [0.5, 0.25, 0].map((phase) => light(phase).all);
    expect(half / full).toBeGreaterThan(0.25);
    expect(half / full).toBeLessThan(0.55);
    expect(none / full).toBeLessThan(0.02);
    expect(none).toBeGreaterThan(0);
  });

  it('gives light by its phase as measured: a half moon a tenth of a full one', () => {
    expect(phaseLight(0.5)).toBe(1);
    expect(phaseLight(0.25)).toBeGreaterThan(0.07);
    expect(phaseLight(0.25)).toBeLessThan(0.11);
    expect(phaseLight(0.2)).toBeCloseTo(phaseLight(0.8), 12);
    expect([0, 0.25, 0.5].map(litShare)).toEqual([0, expect.closeTo(0.5, 9), 1]);
  });

  it('is sent on by haze without gain or loss', () => {
    for (const g of [0, 0.5, 0.86]) {
      let sum = 0;
      const steps = 20000;
      for (let k = 0; k < steps; k++)
        sum += ((2 * Math.PI * 2) / steps) * forwardScatter(1 - (2 * (k + 0.5)) / steps, g);
      expect(sum).toBeCloseTo(1, 3);
    }
  });
});

describe('behindSkyline', () => {
  const WEIGHTS: SkyWeights = {
    ambient: 1,
    sky: 2,
    under: [0, 0, 0],
    mist: { color: [0.5, 0.4, 0.3], perMetre: 0 },
    stars: 0,
  };
  const land = flat(0).fill(1, (H / 2) * W);
  const points = Float32Array.of(0.5, 0.2, 1e-3, 1e-3, 1e-3, 0.5, 0.8, 1, 1, 1);
  const sky = (cloud?: number) => ({
    ...rgb(0.1),
    cloud: cloud === undefined ? new Float32Array(0) : flat(cloud),
  });
  const show = (weights: Partial<SkyWeights> = {}, cloud?: number, coverage = land) => {
    const out = rgb(0);
    const all = { ...WEIGHTS, ...weights };
    behindSkyline(
      out,
      { night: rgb(0.03), land: coverage, sky: sky(cloud), points, count: 2, starSize: 0.004 },
      all,
      GROUND,
      CAMERA,
      wholeRegion(W, H),
    );
    return out;
  };
  const at = (plane: Float32Array, u: number, v: number) => plane[Math.floor(v * H) * W + Math.floor(u * W)];

  it('weighs sky and land by coverage', () => {
    const out = show({ ambient: 3 });
    expect(at(out.g, 0.3, 0.2)).toBeCloseTo(0.2, 6);
    expect(at(out.g, 0.3, 0.8)).toBeCloseTo(0.09, 6);
    expect(at(show({}, undefined, flat(0.25)).g, 0.5, 0.5)).toBeCloseTo(0.25 * 0.03 + 0.75 * 0.2, 6);
  });

  it('adds stars to sky alone, fewer behind clouds', () => {
    const [clear, cloudy] = [show({ stars: 1 }), show({ stars: 1 }, 0.5)];
    const [plain, thick] = [show(), show({}, 0.5)];
    const added = at(clear.r, 0.5, 0.2) - at(plain.r, 0.5, 0.2);
    expect(added).toBeGreaterThan(0.1);
    expect((at(cloudy.r, 0.5, 0.2) - at(thick.r, 0.5, 0.2)) / added).toBeCloseTo(throughCloud(0.5), 2);
    expect(at(clear.r, 0.5, 0.8)).toBe(at(plain.r, 0.5, 0.8));
  });

  it('lets clouds take the colour of what burns below', () => {
    const out = show({ under: [0.4, 0.02, 0.01] }, 0.8);
    expect(at(out.r, 0.5, 0.1) - 0.2).toBeGreaterThan(10 * (at(out.b, 0.5, 0.1) - 0.2));
    expect(at(show({ under: [0.4, 0, 0] }, 0).r, 0.5, 0.1)).toBeCloseTo(0.2, 6);
  });

  it('shows the moon where it stands, a halo around it, and both behind land', () => {
    const toward = skyDirection({ azimuth: 0, elevation: 12 });
    const { u, v } = projectDirection(CAMERA, toward)!;
    const moon = {
      ...{
        toward,
        look: { phase: 0.5, size: 4, tilt: 0 },
        disc: [1, 1, 1],
        light: [0.2, 0.2, 0.2],
        haze: 0.1,
      },
    } as SkyWeights['moon'];
    const [out, plain] = [show({ moon }), show()];
    expect(at(out.r, u, v)).toBeGreaterThan(0.4);
    const halo = (away: number) => at(out.r, u + away, v) - at(plain.r, u + away, v);
    expect(halo(0.06)).toBeGreaterThan(halo(0.2));
    expect(halo(0.2)).toBeGreaterThan(0);
    const hidden = show({ moon }, undefined, flat(1));
    expect(hidden.r.every((value) => Math.abs(value - 0.03) < 1e-7)).toBe(true);
    const behind = { ...moon!, toward: skyDirection({ azimuth: 180, elevation: 12 }) };
    expect(Math.max(...show({ moon: behind }).r)).toBeLessThan(0.25);
  });

  it('sinks into haze toward the horizon', () => {
    const out = show({ mist: { color: [0.5, 0.4, 0.3], perMetre: 0.002 } }, undefined, flat(0));
    expect(at(out.r, 0.5, 0.68)).toBeCloseTo(0.5, 1);
    expect(at(out.r, 0.5, 0.02)).toBeLessThan(at(out.r, 0.5, 0.5));
    const thick = show({ mist: { color: [0.5, 0.4, 0.3], perMetre: 1 }, stars: 1 }, undefined, flat(0));
    expect(at(thick.b, 0.5, 0.2)).toBeCloseTo(0.3, 5);
  });
});

describe('a picture of a sky', () => {
  const half = { width: 4, height: 2, r: flat(0.8, 8), g: flat(0.4, 8), b: flat(0.2, 8) };
  const laid: LaidPicture = {
    picture: half,
    mean: meanLuminance(half),
    place: { at: { u: 0.5, v: 0.25 }, across: 0.5, turn: 0 },
    ...{ share: 1, exposure: 0, fit: 0 },
  };
  const seen = (u: number, v: number, more: Partial<LaidPicture> = {}) => {
    const sky = Float64Array.of(0.1, 0.2, 0.4);
    createPictureLayer({ ...laid, ...more }, 1.5, 0.3)(sky, u, v);
    return sky;
  };

  it('shows at the hour’s brightness in its own colours where it lies', () => {
    const [r, g, b] = seen(0.5, 0.25);
    expect(0.2126 * r + 0.7152 * g + 0.0722 * b).toBeCloseTo(0.3, 6);
    expect(r / g).toBeCloseTo(2, 6);
    expect(seen(0.5, 0.25, { exposure: 1 })[0]).toBeCloseTo(2 * r, 6);
    expect([...seen(0.8, 0.25)]).toEqual([0.1, 0.2, 0.4]);
    expect([...seen(0.5, 0.75)]).toEqual([0.1, 0.2, 0.4]);
  });

  it('turns, shows through, and takes the hour’s colour', () => {
    const up = { place: { at: { u: 0.5, v: 0.25 }, across: 0.5, turn: 90 } };
    expect([...seen(0.7, 0.25, up)]).toEqual([0.1, 0.2, 0.4]);
    expect(seen(0.5, 0.5, up)[0]).toBeGreaterThan(0.3);
    const [through] = seen(0.5, 0.25, { share: 0.5 });
    expect(through).toBeCloseTo((0.1 + seen(0.5, 0.25)[0]) / 2, 6);
    const [r, , b] = seen(0.5, 0.25, { fit: 1 });
    expect(r / b).toBeLessThan(seen(0.5, 0.25)[0] / seen(0.5, 0.25)[2]);
  });

  it('first lies with its foot on the horizon and leaves no sky without it', () => {
    for (const aspect of [0.5, 1, 1.5, 4]) {
      const { at, across } = fittedPlace({ left: 0.6, right: 0.6 }, 1.5, aspect);
      const high = (across * 1.5) / aspect;
      expect(at.v + high / 2).toBeCloseTo(0.6, 6);
      expect(at.v - high / 2).toBeLessThan(0);
      expect(across).toBeGreaterThan(1);
    }
  });

  it('is none that breaks anything at one pixel', () => {
    const dot = { width: 1, height: 1, r: flat(0, 1), g: flat(0, 1), b: flat(0, 1) };
    const sky = seen(0.5, 0.25, { picture: dot, mean: 0 });
    expect(sky.every(Number.isFinite)).toBe(true);
    expect(project(CAMERA, [0, 1, 1.6])).toBeDefined();
  });
});
