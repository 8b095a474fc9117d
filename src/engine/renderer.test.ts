import { describe, expect, it } from 'vitest';
import { setCircuit, setFixture, setNight, setPlan } from '@/core/scene/commands';
import { runCommand, type Command } from '@/core/scene/command';
import { wholeRegion, type Region } from '@/core/plane/region';
import type { Scene } from '@/core/scene/schema';
import { isAbort } from './aborted';
import { createArena } from './arena';
import { createDirectPool } from './direct-pool';
import { createKernels, KERNEL_SCRATCH } from './kernels';
import { createNodePool, loadKernels } from './node-pool';
import type { Pool } from './pool';
import { createRenderer, type Renderer } from './renderer';
import type { Task } from './task';
import { STREET, streetCodes, streetLamp, streetScene } from '../../test/street';

const MEBIBYTE = 2 ** 20;
const NEVER = new AbortController().signal;
const WHOLE = wholeRegion(STREET.width, STREET.height);
const SCENE = streetScene([streetLamp('left', 0.3), streetLamp('right', 0.7, { lumens: 1200 })]);

type Spy = { renderer: Renderer; tasks: Task['type'][]; used: () => number };

/** A renderer on this thread that notes which tasks it was given. */
function spyRenderer(withKernels = true, budget = 64 * MEBIBYTE): Spy {
  const arena = createArena(256 * MEBIBYTE);
  const scratch = arena.allocate(KERNEL_SCRATCH).offset;
  const kernels = withKernels ? createKernels(loadKernels(), arena.memory, scratch) : undefined;
  const direct = createDirectPool(arena.memory, kernels);
  const tasks: Task['type'][] = [];
  const pool: Pool = {
    ...direct,
    run: (task, signal) => {
      tasks.push(task.type);
      return direct.run(task, signal);
    },
  };
  const renderer = createRenderer(
    arena,
    pool,
    (_asset, region) => Promise.resolve(streetCodes(region)),
    budget,
  );
  return { renderer, tasks, used: arena.used };
}

const show = (renderer: Renderer, scene: Scene, region: Region = WHOLE, moving?: string) =>
  renderer.frame({ scene, region, moving }, NEVER, (pixels) => pixels.slice());

const after = (scene: Scene, command: Command) => runCommand(scene, command).scene;

function largestDifference(a: Uint8ClampedArray, b: Uint8ClampedArray): number {
  expect(a.length).toBe(b.length);
  return a.reduce((most, value, i) => Math.max(most, Math.abs(value - b[i])), 0);
}

const luminanceAt = (pixels: Uint8ClampedArray, u: number, v: number) => {
  const i = 4 * (Math.floor(v * STREET.height) * STREET.width + Math.floor(u * STREET.width));
  return 0.21 * pixels[i] + 0.72 * pixels[i + 1] + 0.07 * pixels[i + 2];
};

describe('renderer', () => {
  it('lights the ground near the foot and leaves the sky alone', async () => {
    const { renderer } = spyRenderer();
    const dark = await show(renderer, streetScene([]));
    const lit = await show(renderer, after(SCENE, setNight('Haze', { haze: 0 })));
    const darkNoHaze = await show(renderer, after(streetScene([]), setNight('Haze', { haze: 0 })));
    expect(luminanceAt(lit, 0.3, 0.8)).toBeGreaterThan(luminanceAt(dark, 0.3, 0.8) + 30);
    expect(luminanceAt(lit, 0.5, 0.05)).toBeCloseTo(luminanceAt(darkNoHaze, 0.5, 0.05), 0);
  });

  it('is the same with kernels as with their twins', async () => {
    const fast = await show(spyRenderer(true).renderer, SCENE);
    const plain = await show(spyRenderer(false).renderer, SCENE);
    expect(largestDifference(fast, plain)).toBeLessThanOrEqual(1);
  });

  it('is the same on worker threads as on this one', async () => {
    const arena = createArena(256 * MEBIBYTE);
    const threads = createRenderer(
      arena,
      createNodePool(arena, 2),
      (_asset, region) => Promise.resolve(streetCodes(region)),
      64 * MEBIBYTE,
    );
    const there = await show(threads, SCENE);
    threads.close();
    expect(largestDifference(there, await show(spyRenderer().renderer, SCENE))).toBe(0);
  });

  it('makes a part of the picture as that part of the whole, also at widths that four does not divide', async () => {
    const { renderer } = spyRenderer();
    const whole = await show(renderer, SCENE);
    const part: Region = { ...WHOLE, left: 31, top: 70, width: 57, height: 40 };
    const some = await show(renderer, SCENE, part);
    for (let y = 0; y < part.height; y++) {
      const from = 4 * ((part.top + y) * STREET.width + part.left);
      const row = whole.slice(from, from + 4 * part.width);
      expect(
        largestDifference(some.slice(4 * y * part.width, 4 * (y + 1) * part.width), row),
      ).toBeLessThanOrEqual(1);
    }
  });

  it('computes nothing but the mix anew for a fader', async () => {
    const { renderer, tasks } = spyRenderer();
    await show(renderer, SCENE);
    tasks.length = 0;
    const dimmed = after(SCENE, setCircuit('level', 'street', { level: -2 }));
    expect(renderer.isReady({ scene: dimmed, region: WHOLE })).toBe(true);
    await show(renderer, dimmed);
    expect(new Set(tasks)).toEqual(new Set(['mix']));
  });

  it('computes only the lamp that moves, and the frame is that of the whole', async () => {
    const { renderer, tasks } = spyRenderer();
    const move = (u: number) => after(SCENE, setFixture('move', 'left', { at: { u, v: 0.35 } }));
    await show(renderer, move(0.31), WHOLE, 'left');
    tasks.length = 0;
    const moved = await show(renderer, move(0.32), WHOLE, 'left');
    expect(tasks).not.toContain('relief');
    const bands = tasks.filter((type) => type === 'layer').length;
    expect(bands).toBe(Math.ceil((STREET.width * STREET.height) / 80_000));
    expect(largestDifference(moved, await show(spyRenderer().renderer, move(0.32)))).toBeLessThanOrEqual(1);
  });

  it('follows a dragged horizon without surveying the plate anew', async () => {
    const { renderer, tasks } = spyRenderer();
    const before = await show(renderer, SCENE);
    tasks.length = 0;
    const scene = after(SCENE, setPlan('Horizon', { horizon: { left: 0.45, right: 0.5 } }));
    const request = { scene, region: WHOLE, surveyAt: SCENE.plan.horizon };
    const dragged = await renderer.frame(request, NEVER, (pixels) => pixels.slice());
    expect(tasks).not.toContain('survey');
    expect(largestDifference(dragged, before)).toBeGreaterThan(5);
    await show(renderer, scene);
    expect(tasks).toContain('survey');
  });

  it('leaves out circuits that do not burn', async () => {
    const { renderer } = spyRenderer();
    const muted = after(SCENE, setCircuit('mute', 'street', { muted: true }));
    expect(largestDifference(await show(renderer, muted), await show(renderer, streetScene([])))).toBe(0);
  });

  it('keeps within its memory, and comes back to the same picture', async () => {
    const { renderer, used } = spyRenderer(true, 4 * MEBIBYTE);
    const first = await show(renderer, SCENE);
    for (let i = 0; i < 12; i++) {
      await show(renderer, after(SCENE, setFixture('move', 'left', { at: { u: 0.2 + i / 50, v: 0.3 } })));
    }
    const frame = 4 * STREET.width * STREET.height * 20;
    expect(used()).toBeLessThan(4 * MEBIBYTE + frame);
    expect(largestDifference(await show(renderer, SCENE), first)).toBe(0);
  });

  it('gives an outdated frame up and leaves nothing behind', async () => {
    const { renderer, used } = spyRenderer();
    const stop = new AbortController();
    const frame = renderer.frame({ scene: SCENE, region: WHOLE }, stop.signal, () => {});
    stop.abort();
    await expect(frame).rejects.toSatisfy(isAbort);
    await show(renderer, SCENE);
    const before = used();
    const again = new AbortController();
    again.abort();
    await expect(renderer.frame({ scene: SCENE, region: WHOLE }, again.signal, () => {})).rejects.toSatisfy(
      isAbort,
    );
    expect(used()).toBe(before);
  });

  it('tells of a plate that cannot be loaded, and works when it can be again', async () => {
    const arena = createArena(64 * MEBIBYTE);
    let broken = true;
    const load = (_asset: string, region: Region) =>
      broken ? Promise.reject(new Error('no plate')) : Promise.resolve(streetCodes(region));
    const renderer = createRenderer(arena, createDirectPool(arena.memory), load, 32 * MEBIBYTE);
    await expect(show(renderer, SCENE)).rejects.toThrow('no plate');
    broken = false;
    expect(await show(renderer, SCENE)).toHaveLength(4 * STREET.width * STREET.height);
  });
});
