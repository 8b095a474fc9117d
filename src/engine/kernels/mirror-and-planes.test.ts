import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { throughDrifts } from '@/core/drift/through-drifts';
import { veilLight } from '@/core/lens/veil';
import { addMirrors } from '@/core/mirror/add-mirrors';
import { fillPyramid, pyramidLength, pyramidLevels } from '@/core/mirror/light-pyramid';
import { mirrorImage } from '@/core/mirror/mirror-image';
import { addMasked } from '@/core/plane/blend';
import {
  CAMERA,
  CHANNELS,
  COUNT,
  expectAlike,
  kernels,
  planesOf,
  REGION,
  seeds,
} from '../../../test/kernel-planes';

describe('kernels of mirrors and of what is weighed and added, and the core', () => {
  it('show the same in mirrors of every roughness', () => {
    fc.assert(
      fc.property(seeds, fc.double({ min: 0.001, max: 0.4, noNaN: true }), (seed, rough) => {
        const { plane, rgb, random, release } = planesOf(seed);
        const levels = pyramidLevels(
          plane(0, 0, pyramidLength(REGION.width, REGION.height)),
          REGION.width,
          REGION.height,
        );
        const light = rgb(0, 4);
        kernels.fillPyramid(levels, light);
        const own = pyramidLevels(
          new Float32Array(pyramidLength(REGION.width, REGION.height)),
          REGION.width,
          REGION.height,
        );
        fillPyramid(own, light);
        levels.forEach(({ data }, k) =>
          expect(data.every((value, i) => Math.abs(value - own[k].data[i]) < 1e-5)).toBe(true),
        );
        const seen = {
          ...{ u: plane(-0.5, 1.5), v: plane(-0.5, 1.5), behind: plane(0, 1), facing: plane(0, 1) },
          ...{ alpha: plane(0, rough), weight: plane(0, 1).map(() => Number(random() < 0.7)) },
        };
        const weight = plane(0, 0);
        weight.set(seen.weight);
        const [kernel, core] = [plane(0, 0, 4 * COUNT), plane(0, 0, 4 * COUNT)];
        kernels.mirrorImage(kernel, levels, { ...seen, weight }, CAMERA.focal);
        mirrorImage(core, levels, { ...seen, weight }, CAMERA.focal);
        expect(core.some((value) => value > 0)).toBe(true);
        // Between two levels a pixel may take either, by what 32 bits leave of its blur: none of these seeds does more than now and then.
        const off = core.reduce(
          (count, value, i) => count + Number(Math.abs(kernel[i] - value) > 2e-3 * (1 + value)),
          0,
        );
        expect(off).toBeLessThan(0.003 * core.length);
        release();
      }),
    );
  });

  it('add mirrors alike, smooth and rippled', () => {
    fc.assert(
      fc.property(seeds, fc.boolean(), (seed, atItsOwnScale) => {
        const { plane, rgb, release } = planesOf(seed);
        const region = { ...REGION, left: 40, top: 9, fullWidth: 300, fullHeight: 200 };
        const size = atItsOwnScale ? { width: 300, height: 200 } : { width: 31, height: 21 };
        const small = (least: number, most: number, each = 1) =>
          plane(least, most, each * size.width * size.height);
        // A known light is its light times how far it is known: here all of it.
        const image = { ...size, data: small(0.6, 1, 4), weight: small(-0.2, 1.2), ripples: small(-0.3, 1) };
        const land = {
          sheen: plane(-0.3, 1),
          normalX: plane(-0.1, 0.1),
          normalY: plane(-0.4, 0),
          normalZ: plane(0.2, 1.2),
          land: plane(-0.2, 1),
        };
        for (const own of [land.sheen, land.land]) own.forEach((value, i) => (own[i] = Math.max(0, value)));
        land.normalZ.forEach((value, i) => (land.normalZ[i] = Math.min(1, value)));
        const kernel = rgb(0, 1);
        const core = { ...kernel, r: kernel.r.slice(), g: kernel.g.slice(), b: kernel.b.slice() };
        const before = kernel.r.slice();
        kernels.addMirrors(kernel, land, image, CAMERA, region, 0.8);
        addMirrors(core, land, image, CAMERA, region, 0.8);
        expect(core.r.some((value, i) => value > before[i])).toBe(true);
        for (const name of CHANNELS) expectAlike(kernel[name], core[name], 1e-3, 1e-4);
        release();
      }),
    );
  });

  it('veil alike, however far', () => {
    fc.assert(
      fc.property(seeds, fc.double({ min: 0.01, max: 0.7, noNaN: true }), (seed, reach) => {
        const { plane, rgb, release } = planesOf(seed);
        const [light, kernel, core, room] = [
          rgb(0, 9),
          rgb(0, 0),
          rgb(0, 0),
          [plane(0, 0), plane(0, 0)] as const,
        ];
        veilLight(kernel, light, reach, room, kernels);
        veilLight(core, light, reach, room);
        for (const name of CHANNELS) {
          expect(kernel[name].every((value, i) => Math.abs(value - core[name][i]) < 1e-4)).toBe(true);
          expect(core[name].some((value) => value > 1)).toBe(true);
        }
        release();
      }),
    );
  });

  it('let light through drifts alike, and mask it', () => {
    fc.assert(
      fc.property(seeds, fc.boolean(), fc.integer({ min: 0, max: 3 }), (seed, outside, number) => {
        const { plane, rgb, random, release } = planesOf(seed);
        const covers = Array.from({ length: number }, () => plane(0, 1));
        const color = () => [random(), random(), random()] as const;
        const glows = Array.from({ length: number }, () => ({ glow: plane(0, 2), color: color() }));
        const [light, kernel, core, ambient] = [rgb(0, 3), rgb(0, 0), rgb(0, 0), color()];
        throughDrifts(kernel, plane(0, 0), light, covers, ambient, glows, kernels);
        throughDrifts(core, plane(0, 0), light, covers, ambient, glows);
        for (const name of CHANNELS) {
          addMasked(kernel[name], light.g, covers[0], outside, kernels);
          addMasked(core[name], light.g, covers[0], outside);
          expect(kernel[name].every((value, i) => Math.abs(value - core[name][i]) < 1e-4)).toBe(true);
        }
        release();
      }),
    );
  });
});
