import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { evenOut, levelling } from '@/core/day/even-out';
import { createSpikes } from '@/core/lens/add-spikes';
import { GLINT_STRIDE } from '@/core/lens/glint';
import { addGrain, DEVIATES, fillDeviates } from '@/core/lens/grain';
import { followEdge } from '@/core/matte/refine-edge';
import { joinSky } from '@/core/sky/behind-skyline';
import { freeLand } from '@/core/sky/free-land';
import { skyLight } from '@/core/sky/sky-light';
import { SKY_TONES } from '@/core/sky/sky-tones';
import { CAMERA, CHANNELS, expectAlike, kernels, planesOf, REGION, seeds } from '../../../test/kernel-planes';

describe('kernels of lens, sky, mattes and day and the core', () => {
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
          expect(core[name].every((light, i) => Math.abs(kernel[name][i] - light) < 0.015 * brightest)).toBe(
            true,
          );
        for (const name of CHANNELS) {
          const [one, other] = [kernel[name], core[name]].map((plane) =>
            plane.reduce((all, light) => all + light, 0),
          );
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
                ...{
                  toward: [0.28, 0.8, 0.53] as const,
                  look: { phase: 0.5, size: 1, tilt: 0 },
                  disc: color(),
                },
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
          return {
            width: wide,
            height: high,
            data,
            rgb: { width: wide, height: high, r: data(), g: data(), b: data() },
          };
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

  it('tell land and sky apart alike: within both, between them, and among leaves', () => {
    const size = { width: 23, height: 15 };
    const box = { left: fc.integer({ min: 0, max: 70 }), wide: fc.integer({ min: 1, max: 75 }) };
    fc.assert(
      fc.property(seeds, fc.boolean(), box.left, box.wide, (seed, isLeafy, left, wide) => {
        const { plane, rgb, random, release } = planesOf(seed);
        const small = (least: number, most: number) => plane(least, most, size.width * size.height);
        const dark = 0.1 + random();
        const tones = Object.fromEntries(
          SKY_TONES.map((name) => [name, small(0, name.startsWith('land') ? dark : 1)]),
        );
        const [within, near] = [small(-1, 2), tones.nearSky.map((share) => Math.max(0, 2 * share - 1))];
        tones.withinSky.set(within.map((share) => Math.min(1, Math.max(0, share))));
        tones.withinLand.set(within.map((share) => Math.min(1, Math.max(0, random() * (share < 0 ? 3 : 0)))));
        tones.nearSky.set(near);
        if (!isLeafy) tones.leaves.fill(0);
        const sky = { slope: small(-2, 2), offset: small(-0.5, 1.5) };
        const told = { survey: { ...size, sky }, tones: { ...tones, ...size } as never };
        const region = { ...REGION, left: 40, top: 9, fullWidth: 300, fullHeight: 200 };
        const plate = rgb(0, 1);
        const blank = () => ({ ...rgb(0, 0), land: plane(0, 0) });
        const [kernel, core] = [blank(), blank()];
        const part = { left, right: Math.min(75, left + wide), top: 3, bottom: 20 };
        kernels.freeLand(kernel, plate, told, region, part);
        freeLand(core, plate, told, region, part);
        // A narrow box reaches over what lies beside it.
        for (const plane of [kernel.r, kernel.g, kernel.b, kernel.land])
          plane.forEach((_, i) => {
            if (i % 75 < part.left || i % 75 >= part.right) plane[i] = 0;
          });
        for (const name of [...CHANNELS, 'land'] as const) expectAlike(kernel[name], core[name], 2e-3, 2e-3);
        release();
      }),
    );
  });

  it('lead the edge of a coverage alike', () => {
    fc.assert(
      fc.property(seeds, fc.boolean(), (seed, atItsOwnScale) => {
        const { plane, rgb, release } = planesOf(seed);
        const region = { ...REGION, left: 40, top: 9, fullWidth: 300, fullHeight: 200 };
        const size = atItsOwnScale ? { width: 300, height: 200 } : { width: 23, height: 15 };
        const line = (least: number, most: number) => plane(least, most, size.width * size.height);
        const lines = { r: line(-2, 2), g: line(-2, 2), b: line(-2, 2), offset: line(-0.5, 1.5) };
        const plate = rgb(-0.01, 1);
        const [kernel, core] = [plane(0, 0), plane(0, 0)];
        kernels.followEdge(kernel, lines, size, plate, region);
        followEdge(core, lines, size, plate, region);
        expectAlike(kernel, core, 1e-4, 1e-4);
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
        for (const name of CHANNELS)
          expect(made[name].every((light, i) => Math.abs(light - told[name][i]) < 1e-5)).toBe(true);
        release();
      }),
    );
  });
});
