import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { evenOut, levelling } from '@/core/day/even-out';
import { createDisplayCodes } from '@/core/film/display-codes';
import { developLight } from '@/core/film/develop-light';
import { seeded } from '@/core/fixture/seeded';
import { createCamera } from '@/core/geometry/camera';
import { addLights } from '@/core/light/add-lights';
import { createSpikes } from '@/core/lens/add-spikes';
import { GLINT_STRIDE } from '@/core/lens/glint';
import { addGrain, DEVIATES, fillDeviates } from '@/core/lens/grain';
import { spreadLight } from '@/core/lens/veil';
import { boundsOf, type StandingCoverage } from '@/core/light/occlusion';
import type { PointLight } from '@/core/light/point-light';
import { SOFT_LEVELS, softenCoverage } from '@/core/light/soft-coverage';
import { layDabs } from '@/core/matte/paint-coverage';
import { ambientLight } from '@/core/night/ambient-light';
import { nightBase } from '@/core/night/night-base';
import { startingNight } from '@/core/night/starting-night';
import { mixPicture } from '@/core/picture/mix-picture';
import { wallPieces } from '@/core/plan/wall-pieces';
import { addEnlarged } from '@/core/plane/add-enlarged';
import { rowsOf, wholeRegion } from '@/core/plane/region';
import { RELIEF_PLANES, type Relief } from '@/core/relief/relief-planes';
import { joinSky } from '@/core/sky/behind-skyline';
import { skyLight } from '@/core/sky/sky-light';
import { createArena } from '../memory/arena';
import { loadKernels } from '../pool/node-pool';
import { createKernels, KERNEL_SCRATCH } from './kernels';

/** A width that four does not divide, and no multiple of a tile's height. */
const REGION = wholeRegion(75, 21);
const COUNT = REGION.width * REGION.height;
const ROWS = { from: 3, to: 20 };
const CAMERA = createCamera({ horizon: { left: 0.4, right: 0.42 }, eyeHeight: 1.6, lens: 28 }, 1.5);

const arena = createArena(64 * 2 ** 20);
const kernels = createKernels(loadKernels(), arena.memory, arena.allocate(KERNEL_SCRATCH).offset);

/** Planes in the kernels' memory, of numbers from a seed. */
function planesOf(seed: number) {
  const random = seeded(seed);
  const taken: ReturnType<typeof arena.allocate>[] = [];
  const plane = (least: number, most: number, length = COUNT): Float32Array => {
    const block = arena.allocate(4 * length);
    taken.push(block);
    const floats = new Float32Array(arena.memory.buffer, block.offset, length);
    for (let i = 0; i < length; i++) floats[i] = least + (most - least) * random();
    return floats;
  };
  const rgb = (least: number, most: number) => ({
    ...{ width: REGION.width, height: REGION.height },
    ...{ r: plane(least, most), g: plane(least, most), b: plane(least, most) },
  });
  return { plane, rgb, random, release: () => taken.forEach(arena.release) };
}

/** A card that stands so far ahead, seen from `left` on across a fifth of the plate. */
function standeeOf(plane: ReturnType<typeof planesOf>['plane'], ahead: number, left: number): StandingCoverage {
  const [width, height] = [30, 20];
  const data = Float32Array.from({ length: width * height }, (_, i) => {
    const [u, v] = [(i % width) / width, Math.floor(i / width) / height];
    return u >= 0.8 * left && u < 0.8 * left + 0.2 && v > 0.3 && v < 0.65 ? 1 : 0;
  });
  const levels = plane(0, 0, SOFT_LEVELS * width * height);
  softenCoverage(levels, { width, height, data });
  return { ahead, width, height, levels, bounds: boundsOf(data, width, height) };
}

/** Holds a kernel's plane to the core's, in the rows that were asked for: within a share of what is there, and a little. */
function expectAlike(kernel: Float32Array, core: Float32Array, share: number, little: number): void {
  for (let i = ROWS.from * REGION.width; i < ROWS.to * REGION.width; i++) {
    // A hand's breadth from a lamp little is left of a distance in 32 bits.
    const allowed = share * Math.abs(core[i]) * (1 + Math.abs(core[i]) / 1e4) + little;
    if (!(Math.abs(kernel[i] - core[i]) <= allowed)) {
      expect(kernel[i], `pixel ${i}`).toBeCloseTo(core[i], 12);
    }
  }
}

const seeds = fc.integer({ min: 1, max: 2 ** 31 });
const CHANNELS = ['r', 'g', 'b'] as const;

describe('kernels and the core', () => {
  it('sum light alike', () => {
    fc.assert(
      fc.property(seeds, fc.integer({ min: 0, max: 5 }), fc.boolean(), (seed, count, hazy) => {
        const { plane, rgb, random, release } = planesOf(seed);
        const base = { plate: rgb(0, 1), night: rgb(0, 0.2), distance: plane(1, 200), land: plane(0, 1) };
        const sourceRows = { from: 5, to: 11 };
        const layers = Array.from({ length: count }, () => ({
          ...{ spill: plane(0, 50), air: random() < 0.5 ? plane(0, 3) : undefined, shine: random() < 0.5 ? plane(0, 9) : undefined },
          ...{ source: plane(0, 900, 6 * REGION.width), sourceRows },
        }));
        const color = () => [random(), random(), random()] as [number, number, number];
        const weights = {
          ...{ ambient: random(), sky: random() },
          mist: { color: color(), perMetre: hazy ? 0.02 * random() : 0 },
          layers: layers.map(() => ({ spill: color(), shine: color(), air: color(), source: color() })),
        };
        const [kernel, core] = [rgb(0, 0), rgb(0, 0)];
        kernels.mixRows(kernel, base, layers, weights, ROWS);
        mixPicture(core, base, layers, weights, ROWS);
        for (const name of CHANNELS) expectAlike(kernel[name], core[name], 3e-6, 1e-6);
        release();
      }),
    );
  });

  it('develop light to the same codes, but for one at a step', () => {
    const codes = createDisplayCodes(255);
    fc.assert(
      fc.property(seeds, fc.double({ min: 1e-4, max: 50, noNaN: true }), (seed, most) => {
        const { plane, rgb, release } = planesOf(seed);
        const [light, out] = [rgb(-0.01, most), plane(0, 0)];
        kernels.develop(out, light, 0, COUNT);
        const core = new Uint8ClampedArray(4 * COUNT);
        developLight(core, light, codes);
        const kernel = new Uint8ClampedArray(out.buffer, out.byteOffset, 4 * COUNT);
        const far = core.filter((code, i) => Math.abs(code - kernel[i]) > 1);
        expect(far).toHaveLength(0);
        release();
      }),
    );
  });

  it('darken a plate alike', () => {
    fc.assert(
      fc.property(seeds, fc.double({ min: 0, max: 1, noNaN: true }), fc.boolean(), (seed, hour, closed) => {
        const { plane, rgb, release } = planesOf(seed);
        const light = ambientLight(startingNight(hour));
        const plate = rgb(0, 1);
        const open = closed ? plane(0, 1) : undefined;
        const [kernel, core] = [rgb(0, 0), rgb(0, 0)];
        kernels.nightBase(kernel, plate, light, open, undefined, 0, COUNT);
        nightBase(core, plate, light, open);
        for (const name of CHANNELS) expectAlike(kernel[name], core[name], 1e-5, 1e-7);
        release();
      }),
    );
  });

  it('look at a small copy alike, to spread light through a veil and to add what surfaces give on', () => {
    fc.assert(
      fc.property(seeds, fc.double({ min: 0, max: 0.5, noNaN: true }), fc.integer({ min: 0, max: 40 }), (seed, share, left) => {
        const { plane, rgb, release } = planesOf(seed);
        const [wide, high] = [23, 15];
        const veil = {
          ...{ width: wide, height: high },
          ...{ r: plane(0, 2, wide * high), g: plane(0, 2, wide * high), b: plane(0, 2, wide * high) },
        };
        const region = { ...REGION, left, top: 9, fullWidth: 300, fullHeight: 200 };
        const [light, kernel, core] = [rgb(0, 3), rgb(0, 0), rgb(0, 0)];
        kernels.spreadLight(kernel, light, veil, share, region);
        spreadLight(core, light, veil, share, region);
        for (const name of CHANNELS) expectAlike(kernel[name], core[name], 1e-5, 1e-5);
        const small = { width: wide, height: high, data: veil.r };
        kernels.addEnlarged(kernel.g, small, light.r, region);
        addEnlarged(core.g, small, light.r, region);
        expectAlike(kernel.g, core.g, 1e-5, 1e-5);
        release();
      }),
    );
  });

  it('light surfaces and air alike, past walls and what stands', () => {
    const walls = wallPieces(CAMERA, [
      { foot: [{ u: 0.2, v: 0.7 }, { u: 0.6, v: 0.65 }], height: 2, sheen: 0, roughness: 1, crease: 0 },
    ]);
    fc.assert(
      fc.property(seeds, fc.boolean(), fc.boolean(), (seed, shaded, shiny) => {
        const { plane, random, release } = planesOf(seed);
        const shades = { walls, decks: [], standees: [standeeOf(plane, 3 + 6 * random(), random())], ends: {} };
        const land = Object.fromEntries(RELIEF_PLANES.map((name) => [name, plane(0, 1)])) as unknown as Relief;
        for (let i = 0; i < COUNT; i++) {
          // Level ground under the eye, some of it folded; sky above the horizon.
          const v = (Math.floor(i / REGION.width) + 0.5) / REGION.height;
          land.reach[i] = 1.6 / Math.max(0.02, v - 0.41);
          land.land[i] = v > 0.45 ? 1 : 0;
          const [x, y] = [0.4 * (land.normalX[i] - 0.5), 0.4 * (land.normalY[i] - 0.5)];
          const long = Math.hypot(x, y, 1);
          // What lies to the right faces the eye, as one wall.
          const isWall = i % REGION.width >= 64;
          [land.normalX[i], land.normalY[i], land.normalZ[i]] = isWall ? [0, -1, 0] : [x / long, y / long, 1 / long];
          if (isWall && !shiny) land.unknownFacing[i] = 0;
          land.alpha[i] = 0.05 + 0.9 * land.alpha[i];
          // Without a plane for it, nothing shines.
          if (!shiny) land.sheen[i] = 0;
        }
        const lights = Array.from({ length: 3 }, (): PointLight => {
          const faces = random() < 0.5;
          return {
            place: [6 * random() - 3, 3 + 8 * random(), 0.5 + 3 * random()],
            ...{ spillCandela: 50 + 400 * random(), airCandela: 40 * random(), radius: 0.02 + 0.2 * random() },
            ...(faces && { facing: [0, -0.6, -0.8] as const, even: random() < 0.5 ? 1 : 0, clear: random() < 0.5 ? 0.3 : 0 }),
          };
        });
        const light = () => ({ spill: plane(0, 0), air: plane(0, 0), shine: shiny ? plane(0, 0) : undefined });
        const [kernel, core] = [light(), light()];
        kernels.addLights(kernel, land, CAMERA, REGION, ROWS, lights, shaded ? shades : undefined);
        const cut = (all: Float32Array) => all.subarray(ROWS.from * REGION.width, ROWS.to * REGION.width);
        const part = { spill: cut(core.spill), air: cut(core.air), shine: core.shine && cut(core.shine) };
        const rows = Object.fromEntries(
          RELIEF_PLANES.map((name) => [name, cut(land[name])]),
        ) as unknown as Relief;
        const band = rowsOf(REGION, ROWS.from, ROWS.to - ROWS.from);
        addLights(part, rows, CAMERA, band, lights, shaded ? shades : undefined);
        const brightest = core.spill.reduce((most, lux) => Math.max(most, lux), 0);
        // At a shadow's soft edge a place moves by what 32 bits leave of its distance.
        expectAlike(kernel.spill, core.spill, 2e-3, 2e-4 * brightest);
        expectAlike(kernel.air, core.air, 2e-4, 1e-6);
        if (kernel.shine && core.shine) expectAlike(kernel.shine, core.shine, 2e-2, 2e-4 * brightest);
        release();
      }),
    );
  });

  it('light a wall alike, from close before it and from behind', () => {
    fc.assert(
      fc.property(seeds, (seed) => {
        const { plane, random, release } = planesOf(seed);
        const wall = Object.fromEntries(RELIEF_PLANES.map((name) => [name, plane(0, 0)])) as unknown as Relief;
        wall.land.fill(1);
        wall.normalY.fill(-1);
        const { corner, across, down } = CAMERA;
        for (let i = 0; i < COUNT; i++) {
          const [u, v] = [((i % REGION.width) + 0.5) / REGION.width, (Math.floor(i / REGION.width) + 0.5) / REGION.height];
          wall.reach[i] = 6 / (corner[1] + u * across[1] + v * down[1]);
        }
        const lights = Array.from({ length: 3 }, (): PointLight => ({
          place: [4 * random() - 2, 6.05 - 0.3 * random(), 1 + 2 * random()],
          ...{ spillCandela: 100, airCandela: 0, radius: 0.03 },
          ...(random() < 0.5 && { facing: [0.6, random() < 0.5 ? 0.8 : -0.8, 0] as const }),
        }));
        const [kernel, core] = [0, 1].map(() => ({ spill: plane(0, 0), air: plane(0, 0) }));
        kernels.addLights(kernel, wall, CAMERA, REGION, { from: 0, to: REGION.height }, lights, undefined);
        addLights(core, wall, CAMERA, REGION, lights, undefined);
        expectAlike(kernel.spill, core.spill, 1e-2, 1e-3);
        release();
      }),
    );
  });

  it('lay dabs alike, of any size and wherever they lie', () => {
    const share = fc.double({ min: 0, max: 1, noNaN: true });
    const place = fc.double({ min: -0.3, max: 1.3, noNaN: true });
    const dab = fc.record({
      ...{ u: place, v: place, flow: share },
      radius: fc.double({ min: 0.001, max: 0.4, noNaN: true }),
    });
    fc.assert(
      fc.property(seeds, fc.array(dab, { maxLength: 6 }), share, fc.boolean(), (seed, dabs, soft, erase) => {
        const { plane, release } = planesOf(seed);
        const kernel = plane(0, 1);
        const core = kernel.slice();
        kernels.layDabs(kernel, dabs, soft, REGION, erase);
        layDabs(core, dabs, soft, REGION, erase);
        // A hard rim of one pixel is steep: a place in 32 bits is a little beside it.
        expect(core.every((value, i) => Math.abs(kernel[i] - value) < 2e-4)).toBe(true);
        release();
      }),
    );
  });

  it('draw spikes alike, of any number and turn, wherever their source is', () => {
    const place = fc.double({ min: -0.3, max: 1.3, noNaN: true });
    const look = fc.record({
      number: fc.integer({ min: 2, max: 24 }),
      turn: fc.double({ min: 0, max: 360, noNaN: true }),
      reach: fc.double({ min: 0.02, max: 0.6, noNaN: true }),
      thickness: fc.double({ min: 0.0003, max: 0.02, noNaN: true }),
      ...{ crisp: fc.double({ min: 0, max: 1, noNaN: true }), heart: fc.constant(0) },
    });
    fc.assert(
      fc.property(seeds, look, place, place, fc.integer({ min: 0, max: 90 }), (seed, spikes, u, v, left) => {
        const { rgb, release } = planesOf(seed);
        const region = { ...REGION, left, top: 30, fullWidth: 200, fullHeight: 120 };
        const [kernel, core] = [rgb(0, 0), rgb(0, 0)];
        const glint = new Float32Array(GLINT_STRIDE);
        glint.set([u, v, 3, 2, 1]);
        const draw = createSpikes(spikes, region.fullWidth);
        draw(kernel, glint, 1, 0.01, region, kernels.addSpikes);
        draw(core, glint, 1, 0.01, region);
        // Where a spike ends across, a pixel may be taken or left by what 32 bits leave of a place.
        const brightest = core.r.reduce((most, light) => Math.max(most, light), 1e-3);
        for (const name of CHANNELS)
          expect(core[name].every((light, i) => Math.abs(kernel[name][i] - light) < 0.015 * brightest)).toBe(true);
        for (const name of CHANNELS) {
          const [one, other] = [kernel[name], core[name]].map((plane) => plane.reduce((all, light) => all + light, 0));
          expect(Math.abs(one - other)).toBeLessThan(0.01 * other + 1e-4 * brightest);
        }
        release();
      }),
    );
  });

  it('draw grain alike, coarse and fine', () => {
    const grain = fc.record({
      iso: fc.integer({ min: 100, max: 25600 }),
      size: fc.double({ min: 0.5, max: 6, noNaN: true }),
      color: fc.double({ min: 0, max: 1, noNaN: true }),
      seed: fc.integer({ min: 1, max: 9999 }),
    });
    fc.assert(
      fc.property(seeds, grain, fc.integer({ min: 0, max: 3000 }), (seed, settings, left) => {
        const { plane, rgb, release } = planesOf(seed);
        const table = plane(0, 0, DEVIATES);
        fillDeviates(table);
        const region = { ...REGION, left, top: 200, fullWidth: 4000, fullHeight: 3000 };
        const kernel = rgb(0, 2);
        const core = { ...kernel, r: kernel.r.slice(), g: kernel.g.slice(), b: kernel.b.slice() };
        kernels.addGrain(kernel, settings, table, region);
        addGrain(core, settings, table, region);
        for (const name of CHANNELS) expectAlike(kernel[name], core[name], 1e-3, 1e-4);
        release();
      }),
    );
  });

  it('join land and sky alike, with and without clouds, moon and haze', () => {
    const share = fc.double({ min: 0, max: 1, noNaN: true });
    fc.assert(
      fc.property(seeds, fc.boolean(), fc.boolean(), share, (seed, cloudy, moonlit, mist) => {
        const { plane, rgb, random, release } = planesOf(seed);
        const color = () => [random(), random(), random()] as [number, number, number];
        const sky = { ...rgb(0, 2), cloud: cloudy ? plane(0, 1) : new Float32Array(0) };
        // Some of it all land, some all sky.
        const land = plane(-0.5, 1.5);
        land.forEach((own, i) => (land[i] = Math.min(1, Math.max(0, own))));
        const behind = { night: rgb(0, 0.2), land, sky, points: new Float32Array(0), count: 0, starSize: 0 };
        const weights = {
          ...{ ambient: random(), sky: random(), under: color(), stars: 0 },
          mist: { color: color(), perMetre: 0.01 * mist },
          moon: moonlit
            ? {
                ...{ toward: [0.28, 0.8, 0.53] as const, look: { phase: 0.5, size: 1, tilt: 0 }, disc: color() },
                ...{ light: color(), haze: random() },
              }
            : undefined,
        };
        const [kernel, core] = [rgb(0, 0), rgb(0, 0)];
        kernels.joinSky(kernel, behind, weights, CAMERA, REGION);
        joinSky(core, behind, weights, CAMERA, REGION);
        for (const name of CHANNELS) expectAlike(kernel[name], core[name], 1e-4, 1e-5);
        release();
      }),
    );
  });

  it('sum up the sky alike, with the plate’s own clouds and with made ones', () => {
    fc.assert(
      fc.property(seeds, fc.boolean(), fc.double({ min: 0, max: 1, noNaN: true }), (seed, cloudy, share) => {
        const { plane, rgb, random, release } = planesOf(seed);
        const small = (wide: number, high: number) => {
          const data = () => plane(0, 1, wide * high);
          return { width: wide, height: high, data, rgb: { width: wide, height: high, r: data(), g: data(), b: data() } };
        };
        const [dome, broad, cover] = [small(13, 9), small(23, 15), small(31, 21)];
        const parts = {
          ...{ twilight: dome.rgb, town: { ...dome.rgb, r: dome.data(), g: dome.data(), b: dome.data() } },
          ...{ above: [random(), random(), random()] as const, mean: 1, own: share < 0.3 ? 0 : share },
          broad: { ...broad, data: broad.data() },
          cloud: cloudy ? { ...cover, data: cover.data() } : undefined,
        };
        const land = plane(0, 0.9);
        const region = { ...REGION, left: 40, top: 9, fullWidth: 300, fullHeight: 200 };
        const sky = () => ({ ...rgb(0, 0), cloud: cloudy ? plane(0, 0) : new Float32Array(0) });
        const [kernel, core] = [sky(), sky()];
        const plate = rgb(0, 1);
        kernels.skyLight(kernel, plate, land, parts, region);
        skyLight(core, plate, land, parts, region);
        for (const name of CHANNELS) expectAlike(kernel[name], core[name], 1e-4, 1e-5);
        if (cloudy) expectAlike(kernel.cloud, core.cloud, 1e-4, 1e-5);
        release();
      }),
    );
  });

  it('even out the day alike', () => {
    fc.assert(
      fc.property(seeds, fc.double({ min: 0, max: 1, noNaN: true }), (seed, amount) => {
        const { plane, rgb, release } = planesOf(seed);
        const [wide, high] = [23, 15];
        const small = (least: number, most: number) => plane(least, most, wide * high);
        const line = { slope: small(0, 1), offset: small(-3, 0) };
        const sky = { slope: small(-2, 2), offset: small(-0.5, 1) };
        const region = { ...REGION, left: 40, top: 9, fullWidth: 300, fullHeight: 200 };
        const plate = rgb(0, 1);
        plate.r.fill(0, 0, 9);
        plate.g.fill(0, 0, 9);
        plate.b.fill(0, 0, 9);
        const [kernel, core] = [plane(0, 0), plane(0, 0)];
        kernels.levelling(kernel, plate, { width: wide, height: high, line }, sky, region, 0.15);
        levelling(core, plate, { width: wide, height: high, line }, sky, region, 0.15);
        expectAlike(kernel, core, 1e-4, 1e-4);
        const [made, told] = [rgb(0, 0), rgb(0, 0)];
        kernels.evenOut(made, plate, core, amount);
        evenOut(told, plate, core, amount);
        for (const name of CHANNELS) expect(made[name].every((light, i) => Math.abs(light - told[name][i]) < 1e-5)).toBe(true);
        release();
      }),
    );
  });
});
