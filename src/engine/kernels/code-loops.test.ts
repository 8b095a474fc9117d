import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { decodeCodes } from '@/core/color/decode-codes';
import { createSrgbEncoder, linearOfCodes } from '@/core/color/srgb-codes';
import { seeded } from '@/core/fixture/seeded';
import { createAreaShrink } from '@/core/plane/area-shrink';
import { loadKernels } from '@/engine/pool/node-pool';
import { CHANNELS, kernels, planesOf, seeds } from '../../../test/kernel-planes';
import { createCodeLoops } from './code-loops';

const loops = createCodeLoops(loadKernels());

describe('loops over codes and the core', () => {
  it('shrink pictures of both depths alike, and enlarge them', () => {
    const side = fc.integer({ min: 1, max: 40 });
    fc.assert(
      fc.property(seeds, fc.boolean(), fc.tuple(side, side, side, side), (seed, isDeep, [w, h, toW, toH]) => {
        const random = seeded(seed);
        const most = isDeep ? 65535 : 255;
        const codes = new (isDeep ? Uint16Array : Uint8Array)(3 * w * h).map(() => random() * (most + 1));
        const own = linearOfCodes(most);
        const curves = [own, own.map((light) => light / 2), own.map((light) => light * light)] as const;
        const [kernel, core] = [0, 0].map(() => new Float32Array(3 * toW * toH));
        const picture = { width: w, height: h, codes, curves };
        const to = { width: toW, height: toH };
        createAreaShrink(kernel, picture, to, loops.createRows)({ from: 0, to: toH });
        createAreaShrink(core, picture, to)({ from: 0, to: toH });
        kernel.forEach((light, i) => expect(Math.abs(light - core[i])).toBeLessThan(1e-5));
      }),
    );
  });

  it('make several pictures smaller at once', () => {
    const own = linearOfCodes(255);
    const grey = (code: number) => ({
      ...{ width: 4, height: 4, codes: new Uint8Array(48).fill(code) },
      curves: [own, own, own] as const,
    });
    const outs = [50, 200].map(() => new Float32Array(12));
    const fills = [50, 200].map((code, k) =>
      createAreaShrink(outs[k], grey(code), { width: 2, height: 2 }, loops.createRows),
    );
    for (const row of [0, 1]) for (const fill of fills) fill({ from: row, to: row + 1 });
    outs.forEach((out, k) => out.forEach((light) => expect(light).toBeCloseTo(own[[50, 200][k]], 6)));
  });

  it('take codes to planes of light alike, from any pixel on', () => {
    const { plane, rgb, release } = planesOf(3);
    const decoded = linearOfCodes(65535);
    const room = plane(0, 1, 3 * 300);
    const codes = new Uint16Array(room.buffer, room.byteOffset, 3 * 300).map((_, i) => (i * 977) & 65535);
    const shared = new Uint16Array(room.buffer, room.byteOffset, codes.length);
    shared.set(codes);
    const [kernel, core] = [rgb(0, 0), rgb(0, 0)];
    kernels.decodeCodes(kernel, shared, decoded, 41, 199);
    decodeCodes(core, codes, decoded, 41, 199);
    for (const name of CHANNELS) expect(kernel[name]).toEqual(core[name]);
    release();
  });

  it('encode light to within a code, clipped, at lengths that four does not divide', () => {
    const encode = createSrgbEncoder();
    const random = seeded(7);
    const ends = [-0.5, 0, 1e-9, 0.0031308, 0.0031309, 1, 1.5];
    const light = Float32Array.from({ length: 30_001 }, (_, i) => ends[i] ?? random() ** 4);
    const [kernel, core] = [0, 0].map(() => new Uint16Array(light.length));
    loops.encode(kernel, light);
    encode(core, light);
    kernel.forEach((code, i) => expect(Math.abs(code - core[i])).toBeLessThanOrEqual(1));
    expect([...kernel.subarray(0, 2), kernel[5], kernel[6]]).toEqual([0, 0, 65535, 65535]);
  });

  it('spread codes of a byte over 16 bits', () => {
    const bytes = Uint8Array.from({ length: 20_011 }, (_, i) => (i * 7) & 255);
    const out = new Uint16Array(bytes.length);
    loops.widen(out, bytes);
    expect(out.every((code, i) => code === 257 * bytes[i])).toBe(true);
  });
});
