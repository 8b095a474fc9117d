import { expect } from 'vitest';
import type { CubeLut } from '@/core/grade/cube-lut';
import { wholeRegion, type Region } from '@/core/plane/region';
import { runCommand, type Command } from '@/core/scene/command';
import type { Fixture, Matte, Place, Scene } from '@/core/scene/schema';
import type { KeptResults } from '@/engine/kept-results';
import { createArena } from '@/engine/memory/arena';
import { createDirectPool } from '@/engine/pool/direct-pool';
import { createKernels, KERNEL_SCRATCH } from '@/engine/kernels/kernels';
import { loadKernels } from '@/engine/pool/node-pool';
import type { Pool } from '@/engine/pool/pool';
import { createRenderer, type Renderer } from '@/engine/renderer';
import { STREET, streetAssets, streetLamp, streetScene } from './street';

export const MEBIBYTE = 2 ** 20;
export const NEVER = new AbortController().signal;
export const WHOLE = wholeRegion(STREET.width, STREET.height);
export const SCENE = streetScene([streetLamp('left', 0.3), streetLamp('right', 0.7, { lumens: 1200 })]);

export interface Spy {
  renderer: Renderer;
  tasks: string[];
  /** Bytes of the arena that are handed out, and all that it has taken from the machine. */
  used: () => number;
  taken: () => number;
}

/** A renderer on this thread that notes which tasks it was given. */
export function spyRenderer(
  withKernels = true,
  budget = 64 * MEBIBYTE,
  lut?: CubeLut,
  share = 1,
  results?: KeptResults,
): Spy {
  const arena = createArena(256 * MEBIBYTE);
  const scratch = arena.allocate(KERNEL_SCRATCH).offset;
  const kernels = withKernels ? createKernels(loadKernels(), arena.memory, scratch) : undefined;
  const direct = createDirectPool(arena.memory, kernels);
  const tasks: string[] = [];
  const pool: Pool = {
    size: direct.size,
    close: () => direct.close(),
    run: (task, signal) => {
      tasks.push(...task.pieces.map(({ stage }) => stage));
      return direct.run(task, signal);
    },
  };
  const renderer = createRenderer(arena, pool, { ...streetAssets(lut, share), results }, budget);
  const taken = () => arena.memory.buffer.byteLength;
  return { renderer, tasks, used: arena.used, taken };
}

export const show = (renderer: Renderer, scene: Scene, region: Region = WHOLE, moving?: Fixture) =>
  renderer.frame({ scene, region, moving }, NEVER, (pixels) => pixels.slice());

export const after = (scene: Scene, command: Command) => runCommand(scene, command).scene;

export function largestDifference(a: Uint8ClampedArray, b: Uint8ClampedArray): number {
  expect(a.length).toBe(b.length);
  return a.reduce((most, value, i) => Math.max(most, Math.abs(value - b[i])), 0);
}

export const luminanceAt = (pixels: Uint8ClampedArray, u: number, v: number) => {
  const i = 4 * (Math.floor(v * STREET.height) * STREET.width + Math.floor(u * STREET.width));
  return 0.21 * pixels[i] + 0.72 * pixels[i + 1] + 0.07 * pixels[i + 2];
};

/** A matte of the left half of the picture. */
export const half: Matte = {
  id: 'half',
  name: 'Half',
  refine: 0,
  grow: 0,
  feather: 0,
  invert: false,
  passes: [
    {
      id: 'p',
      join: 'add',
      kind: 'outline',
      points: [
        { u: 0, v: 0 },
        { u: 0.5, v: 0 },
        { u: 0.5, v: 1 },
        { u: 0, v: 1 },
      ],
    },
  ],
};
/** A dark street whose ambient light a matte lowers. */
export const placed = (matte: Partial<Matte>, place: Partial<Place> = {}): Scene => ({
  ...streetScene([]),
  mattes: [{ ...half, ...matte }],
  places: [{ matte: 'half', outside: false, stops: -3, ...place }],
});
