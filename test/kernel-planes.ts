import fc from 'fast-check';
import { expect } from 'vitest';
import { seeded } from '@/core/fixture/seeded';
import { createCamera } from '@/core/geometry/camera';
import { wholeRegion } from '@/core/plane/region';
import { createKernels, KERNEL_SCRATCH } from '@/engine/kernels/kernels';
import { createArena } from '@/engine/memory/arena';
import { loadKernels } from '@/engine/pool/node-pool';

/** A width that four does not divide, and no multiple of a tile's height. */
export const REGION = wholeRegion(75, 21);
export const COUNT = REGION.width * REGION.height;
export const ROWS = { from: 3, to: 20 };
export const CAMERA = createCamera({ horizon: { left: 0.4, right: 0.42 }, eyeHeight: 1.6, lens: 28 }, 1.5);

const arena = createArena(64 * 2 ** 20);
export const kernels = createKernels(loadKernels(), arena.memory, arena.allocate(KERNEL_SCRATCH).offset);

/** Planes in the kernels' memory, of numbers from a seed. */
export function planesOf(seed: number) {
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

/** Holds a kernel's plane to the core's, in the rows that were asked for: within a share of what is there, and a little. */
export function expectAlike(kernel: Float32Array, core: Float32Array, share: number, little: number): void {
  for (let i = ROWS.from * REGION.width; i < ROWS.to * REGION.width; i++) {
    // A hand's breadth from a lamp little is left of a distance in 32 bits.
    const allowed = share * Math.abs(core[i]) * (1 + Math.abs(core[i]) / 1e4) + little;
    if (!(Math.abs(kernel[i] - core[i]) <= allowed)) {
      expect(kernel[i], `pixel ${i}`).toBeCloseTo(core[i], 12);
    }
  }
}

export const seeds = fc.integer({ min: 1, max: 2 ** 31 });
export const CHANNELS = ['r', 'g', 'b'] as const;
