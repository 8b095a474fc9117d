import { taskName } from './graph/task';
import { describe, expect, it } from 'vitest';
import { setNight, setPlan } from '@/core/scene/commands';
import { setCircuit, setFixture } from '@/core/scene/fixture-commands';
import { parseCube, type CubeLut } from '@/core/grade/cube-lut';
import { PLAIN_GRADE } from '@/core/night/starting-night';
import { wholeRegion, type Region } from '@/core/plane/region';
import type { Night } from '@/core/scene/schema';
import { abortError, isAbort } from './aborted';
import { createArena } from './memory/arena';
import { createDirectPool } from './pool/direct-pool';
import { createNodePool } from './pool/node-pool';
import type { Pool } from './pool/pool';
import { createRenderer } from './renderer';
import { STREET, streetAssets, streetCodes, streetScene } from '../../test/street';
import {
  after,
  largestDifference,
  luminanceAt,
  MEBIBYTE,
  NEVER,
  SCENE,
  show,
  spyRenderer,
  WHOLE,
} from '../../test/spy-renderer';

/** Rejects when a signal aborts. */
const aborting = (signal: AbortSignal) =>
  new Promise<never>((_, reject) => signal.addEventListener('abort', () => reject(abortError())));

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

  it.each([1 / 4, 1.15])(
    'meters a plate that was exposed by %d to the same night with the same lamps',
    async (share) => {
      const right = await show(spyRenderer().renderer, SCENE);
      const wrong = spyRenderer(true, 64 * MEBIBYTE, undefined, share).renderer;
      expect(largestDifference(await show(wrong, SCENE), right)).toBeLessThanOrEqual(3);
      const asShot = after(SCENE, setNight('Metered', { meter: 0 }));
      expect(largestDifference(await show(wrong, asShot), right)).toBeGreaterThan(15);
    },
  );

  const { shape, byTone, surround } = PLAIN_GRADE;
  const curve = [
    { x: 0, y: 0.03 },
    { x: 0.3, y: 0.2 },
    { x: 1, y: 0.9 },
  ];
  const swirl = parseCube(
    [
      'LUT_3D_SIZE 2',
      ...Array.from({ length: 8 }, (_, i) => `${(i >> 1) & 1} ${0.8 * (i & 1)} ${i >> 2}`),
    ].join('\n'),
  );
  const warmer = parseCube('LUT_1D_SIZE 3\nDOMAIN_MAX 0.5 0.5 0.5\n0 0 0\n0.4 0.2 0.1\n1 0.6 0.5');
  const lut = { asset: '7'.repeat(64), name: 'made up', strength: 0.7 };
  const grades: [string, Partial<Night>, CubeLut?][] = [
    ['a curve on luminance', { shape: { ...shape, black: 0.05, middle: 0.3, ceiling: 0.6, points: curve } }],
    ['a curve on the channels', { shape: { ...shape, on: 'colour', points: curve } }],
    [
      'colour by tone, refitted',
      { byTone: { ...byTone, strength: 0.6 }, refit: { always: true, low: 0, high: 1 } },
    ],
    ['a cube', { lut }, swirl],
    ['three curves', { lut: { ...lut, strength: 1 } }, warmer],
    ['surroundings and haze', { surround: { ...surround, stops: 3, lamps: 1 }, haze: 1, hazeGlow: 1 }],
    ['an evened plate', { evenOut: 0.7 }],
  ];

  it.each(grades)('shows %s with kernels as with their twins', async (_name, night, table) => {
    const scene = after(SCENE, setNight('Grade', night));
    const fast = await show(spyRenderer(true, 64 * MEBIBYTE, table).renderer, scene);
    const plain = await show(spyRenderer(false, 64 * MEBIBYTE, table).renderer, scene);
    expect(largestDifference(fast, plain)).toBeLessThanOrEqual(1);
    expect(largestDifference(fast, await show(spyRenderer().renderer, SCENE))).toBeGreaterThan(1);
  });

  it('computes nothing but night and mix anew for a control of the night, and keeps only the last', async () => {
    const { renderer, tasks, used } = spyRenderer();
    const at = (exposure: number) => after(SCENE, setNight('Exposure', { exposure }));
    await show(renderer, at(-3));
    const before = used();
    tasks.length = 0;
    for (let i = 1; i < 6; i++) {
      expect(renderer.isReady({ scene: at(-3 - i / 10), region: WHOLE })).toBe(true);
      await show(renderer, at(-3 - i / 10));
    }
    expect(new Set(tasks)).toEqual(new Set(['night', 'behind', 'sum', 'film']));
    expect(used()).toBe(before);
  });

  it('is the same on worker threads as on this one', async () => {
    const arena = createArena(256 * MEBIBYTE);
    const threads = createRenderer(arena, createNodePool(arena, 2), streetAssets(), 64 * MEBIBYTE);
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

  it('makes parts narrower than kernels work, as they are in the whole', async () => {
    const { renderer } = spyRenderer();
    const whole = await show(renderer, SCENE);
    for (const [left, width] of [
      [0, 1],
      [120, 3],
      [STREET.width - 2, 2],
    ]) {
      const some = await show(renderer, SCENE, { ...WHOLE, left, width, top: 70, height: 5 });
      expect(some).toHaveLength(4 * width * 5);
      const from = 4 * (72 * STREET.width + left);
      const row = whole.slice(from, from + 4 * width);
      expect(largestDifference(some.slice(8 * width, 12 * width), row)).toBeLessThanOrEqual(1);
    }
  });

  it('computes nothing but the mix anew for a fader', async () => {
    const { renderer, tasks } = spyRenderer();
    await show(renderer, SCENE);
    tasks.length = 0;
    const dimmed = after(SCENE, setCircuit('level', 'street', { level: -2 }));
    expect(renderer.isReady({ scene: dimmed, region: WHOLE })).toBe(true);
    await show(renderer, dimmed);
    expect(new Set(tasks)).toEqual(new Set(['sum', 'film']));
  });

  it('computes only the lamp that moves, and the frame is that of the whole', async () => {
    const { renderer, tasks } = spyRenderer();
    const move = (u: number) => after(SCENE, setFixture('move', 'left', { at: { u, v: 0.35 } }));
    const [resting] = move(0.31).fixtures;
    await show(renderer, move(0.31), WHOLE, resting);
    tasks.length = 0;
    const moved = await show(renderer, move(0.32), WHOLE, resting);
    expect(tasks).not.toContain('relief');
    const bands = tasks.filter((stage) => stage === 'lamps').length;
    // What surfaces give on stays as it was when the lamp was taken up.
    expect(bands).toBe(Math.ceil((STREET.width * STREET.height) / 80_000));
    expect(largestDifference(moved, await show(spyRenderer().renderer, move(0.32)))).toBeLessThanOrEqual(1);
  });

  it('gives on the light of a dragged lamp from where it was taken up, whatever was shown before', async () => {
    const { renderer } = spyRenderer();
    const move = (u: number) => after(SCENE, setFixture('move', 'left', { at: { u, v: 0.35 } }));
    // Moved far away, and undone: the frame of the undo comes from what is kept.
    await show(renderer, SCENE);
    await show(renderer, move(0.9));
    await show(renderer, SCENE);
    const [resting] = SCENE.fixtures;
    const dragged = await show(renderer, move(0.31), WHOLE, resting);
    const fresh = await show(spyRenderer().renderer, move(0.31), WHOLE, resting);
    expect(largestDifference(dragged, fresh)).toBe(0);
  });

  it('takes no more memory, however long a lamp or its fader is dragged', async () => {
    const { renderer, used, taken } = spyRenderer();
    const [resting] = SCENE.fixtures;
    const move = (u: number) => after(SCENE, setFixture('move', 'left', { at: { u, v: 0.35 } }));
    const dim = (level: number) => after(SCENE, setCircuit('dim', 'street', { level }));
    for (const drag of [
      (k: number) => show(renderer, move(0.3 + k / 100), WHOLE, resting),
      (k: number) => show(renderer, dim(1 - k / 20)),
    ]) {
      for (let k = 0; k < 3; k++) await drag(k);
      const before = { used: used(), taken: taken() };
      for (let k = 3; k < 15; k++) {
        await drag(k);
        expect({ used: used(), taken: taken() }).toEqual(before);
      }
    }
  });

  it('says what of a frame takes too long, and goes on with the next', async () => {
    const arena = createArena(64 * MEBIBYTE);
    let patient = false;
    const direct = createDirectPool(arena.memory);
    const never = new Promise<never>(() => {});
    const pool: Pool = {
      ...direct,
      run: (task, signal) =>
        taskName(task) !== 'relief' || patient
          ? direct.run(task, signal)
          : Promise.race([never, aborting(signal!)]),
    };
    const renderer = createRenderer(arena, pool, streetAssets(), 32 * MEBIBYTE, 0.2);
    await expect(show(renderer, streetScene([]))).rejects.toThrow('0.2 s: the ground plan');
    patient = true;
    const patientOne = createRenderer(arena, pool, streetAssets(), 32 * MEBIBYTE);
    expect((await show(patientOne, streetScene([]))).length).toBe(4 * STREET.width * STREET.height);
  });

  it('says what of a frame needs too much memory, and leaves nothing of it behind', async () => {
    const arena = createArena(6 * MEBIBYTE);
    const pool = createDirectPool(arena.memory);
    const renderer = createRenderer(arena, pool, streetAssets(), 6 * MEBIBYTE);
    const large = wholeRegion(4 * STREET.width, 4 * STREET.height);
    await expect(show(renderer, SCENE, large)).rejects.toMatchObject({
      name: 'FrameLimitError',
      message: expect.stringMatching(/memory than is set aside: (the|evening)/) as string,
    });
    renderer.close();
    expect(arena.used()).toBe(0);
  });

  it('makes what can wait after all that cannot', async () => {
    const { renderer } = spyRenderer();
    const order: string[] = [];
    const ask = (name: string, turn?: 'later') =>
      renderer.frame({ scene: SCENE, region: WHOLE, turn }, NEVER, () => order.push(name));
    await Promise.all([ask('first', 'later'), ask('second', 'later'), ask('thumbnail'), ask('another')]);
    expect(order).toEqual(['first', 'thumbnail', 'another', 'second']);
  });

  it('follows a dragged horizon without surveying the plate anew', async () => {
    const { renderer, tasks } = spyRenderer();
    const before = await show(renderer, SCENE);
    tasks.length = 0;
    const scene = after(SCENE, setPlan('Horizon', { horizon: { left: 0.45, right: 0.5 } }));
    const request = { scene, region: WHOLE, surveyAt: SCENE.plan };
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
    const codes = (_asset: string, region: Region) =>
      broken ? Promise.reject(new Error('no plate')) : Promise.resolve(streetCodes(region));
    const assets = { ...streetAssets(), codes };
    const renderer = createRenderer(arena, createDirectPool(arena.memory), assets, 32 * MEBIBYTE);
    await expect(show(renderer, SCENE)).rejects.toThrow('no plate');
    broken = false;
    expect(await show(renderer, SCENE)).toHaveLength(4 * STREET.width * STREET.height);
  });
});
