import { describe, expect, it } from 'vitest';
import { wholeRegion } from '../plane/region';
import { createCamera, rayThrough } from '../geometry/camera';
import { BEYOND, beyondPicture } from '../relief/beyond-picture';
import { RELIEF_PLANES, type Relief } from '../relief/relief-planes';
import { BOUNCE_STRIDE, bounceLights, gatherBounce } from './bounce';

const [WIDTH, HEIGHT] = [96, 64];
const COUNT = WIDTH * HEIGHT;
const CAMERA = createCamera({ horizon: { left: 0.3, right: 0.3 }, eyeHeight: 2, lens: 24 }, 1.5);
const MIDDLE = 0.2;

/** Ground up to a wall that stands right across, eight metres ahead. */
function corner(): Relief {
  const relief = Object.fromEntries(
    RELIEF_PLANES.map((name) => [name, new Float32Array(COUNT)]),
  ) as unknown as Relief;
  for (let i = 0; i < COUNT; i++) {
    const ray = rayThrough(CAMERA, {
      u: ((i % WIDTH) + 0.5) / WIDTH,
      v: (Math.floor(i / WIDTH) + 0.5) / HEIGHT,
    });
    const ground = ray[2] < 0 ? -2 / ray[2] : Infinity;
    const wall = 8 / ray[1];
    relief.reach[i] = Math.min(ground, wall);
    relief.normalZ[i] = ground < wall ? 1 : 0;
    relief.normalY[i] = ground < wall ? 0 : -1;
    relief.land[i] = 1;
  }
  return relief;
}

const relief = corner();
const grey = new Float32Array(COUNT).fill(MIDDLE);
const plate = { width: WIDTH, height: HEIGHT, r: grey, g: grey, b: grey };
const region = wholeRegion(WIDTH, HEIGHT);

/** World place of a pixel. */
const placeOf = (i: number) => {
  const ray = rayThrough(CAMERA, {
    u: ((i % WIDTH) + 0.5) / WIDTH,
    v: (Math.floor(i / WIDTH) + 0.5) / HEIGHT,
  });
  return [ray[0] * relief.reach[i], ray[1] * relief.reach[i], 2 + ray[2] * relief.reach[i]];
};

/** A disc of light on the ground, five metres ahead. */
const spill = Float32Array.from({ length: COUNT }, (_, i) => {
  const [x, y, z] = placeOf(i);
  return Math.abs(z) < 1e-4 && Math.hypot(x, y - 5) < 1.2 ? 100 : 0;
});

function bounced(columns: number, rows: number, flux = Infinity) {
  const lights = new Float32Array(BOUNCE_STRIDE * columns * rows);
  const lit = { region, relief, plate, spill, blocks: { columns, rows } };
  const used = bounceLights(lights, [lit], CAMERA, MIDDLE, flux);
  const out = new Float32Array(COUNT);
  gatherBounce(out, lights, used, relief, CAMERA, region);
  return { lights, used, out };
}

const wallAt = (z: number) => {
  let best = 0;
  for (let i = 0; i < COUNT; i++) {
    const [x, y, up] = placeOf(i);
    const [bx, , bz] = placeOf(best);
    if (y > 7.99 && Math.hypot(x, up - z) < Math.hypot(bx, bz - z)) best = i;
  }
  return best;
};

describe('one bounce', () => {
  it('gives on as much light as surfaces reflect of what they get', () => {
    const { lights, used } = bounced(24, 16);
    let power = 0;
    for (let k = 0; k < used; k++) power += lights[k * BOUNCE_STRIDE + 6];
    // Radiosity 0.18 * 100 over a disc of 1.2 m, over pi.
    expect(power).toBeCloseTo((0.18 * 100 * Math.PI * 1.2 ** 2) / Math.PI, -0.5);
    expect(power / (0.18 * 100 * 1.44)).toBeGreaterThan(0.85);
    expect(power / (0.18 * 100 * 1.44)).toBeLessThan(1.15);
  });

  it('gives on no more than its lamps send out, however large the surfaces are taken to be', () => {
    const power = (flux: number) => {
      const { lights, used } = bounced(24, 16, flux);
      return Array.from({ length: used }, (_, k) => lights[k * BOUNCE_STRIDE + 6]).reduce((a, b) => a + b, 0);
    };
    expect(power(50)).toBeCloseTo((0.18 * 50) / Math.PI, 5);
    expect(power(1e6)).toBe(power(Infinity));
  });

  it('lights a wall as the disc on the ground would, far enough from it', () => {
    const { out } = bounced(24, 16);
    const at = wallAt(1.5);
    const [x, , z] = placeOf(at);
    let expected = 0;
    const steps = 60;
    for (let a = 0; a < steps; a++)
      for (let b = 0; b < steps; b++) {
        const [dx, dy] = [((a + 0.5) / steps - 0.5) * 2.4, ((b + 0.5) / steps - 0.5) * 2.4];
        if (Math.hypot(dx, dy) > 1.2) continue;
        const [lx, ly, lz] = [x - dx, 8 - (5 + dy), z];
        const d2 = lx * lx + ly * ly + lz * lz;
        expected += ((18 / Math.PI) * (lz * ly) * (2.4 / steps) ** 2) / (d2 * d2);
      }
    expect(out[at] / expected).toBeGreaterThan(0.85);
    expect(out[at] / expected).toBeLessThan(1.15);
  });

  it('lights a wall by the ground beyond the picture, as a disc of light there would', () => {
    const count = BEYOND.width * BEYOND.height;
    const land = Object.fromEntries(
      RELIEF_PLANES.map((name) => [name, new Float32Array(count)]),
    ) as unknown as Relief;
    beyondPicture(land, CAMERA, []);
    const middle = [1, 1.5] as const;
    const lux = Float32Array.from({ length: count }, (_, i) => {
      const [x, y] = rayThrough(CAMERA, {
        u: (BEYOND.left + (i % BEYOND.width) + 0.5) / BEYOND.fullWidth,
        v: (BEYOND.top + Math.floor(i / BEYOND.width) + 0.5) / BEYOND.fullHeight,
      });
      return Math.hypot(x * land.reach[i] - middle[0], y * land.reach[i] - middle[1]) < 0.9 ? 100 : 0;
    });
    const lit = { region: BEYOND, relief: land, spill: lux, blocks: { columns: 8, rows: 7 } };
    const lights = new Float32Array(BOUNCE_STRIDE * 56);
    const used = bounceLights(lights, [lit], CAMERA, MIDDLE, Infinity);
    const out = new Float32Array(COUNT);
    gatherBounce(out, lights, used, relief, CAMERA, region);
    const at = wallAt(1.5);
    const [x, , z] = placeOf(at);
    const d2 = (x - middle[0]) ** 2 + (8 - middle[1]) ** 2 + z ** 2;
    const expected = (18 * 0.9 ** 2 * z * (8 - middle[1])) / (d2 * d2);
    expect(out[at] / expected).toBeGreaterThan(0.8);
    expect(out[at] / expected).toBeLessThan(1.25);
  });

  it('agrees between few lights and many, lights no level ground by itself, and is nothing without light', () => {
    const [few, many] = [bounced(8, 5), bounced(48, 32)];
    const at = wallAt(1.5);
    expect(few.out[at] / many.out[at]).toBeGreaterThan(0.8);
    expect(few.out[at] / many.out[at]).toBeLessThan(1.25);
    spill.forEach((lux, i) => {
      if (lux > 0) expect(many.out[i]).toBeLessThan(0.02);
    });
    const dark = new Float32Array(COUNT);
    const unlit = { region, relief, plate, spill: dark, blocks: { columns: 8, rows: 5 } };
    expect(bounceLights(new Float32Array(8 * 40), [unlit], CAMERA, MIDDLE, Infinity)).toBe(0);
  });
});
