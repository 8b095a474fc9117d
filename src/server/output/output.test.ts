import { readdir, readFile } from 'node:fs/promises';
import { join } from 'node:path';
import sharp from 'sharp';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { wholeRegion } from '@/core/plane/region';
import type { Scene } from '@/core/scene/schema';
import { OUTPUT_FORMAT_NAMES, OUTPUT_FORMATS, type OutputChoice } from '@/core/output/output-formats';
import { abortError } from '@/engine/aborted';
import type { Renderer } from '@/engine/renderer';
import { streetLamp, streetScene } from '../../../test/street';
import { pictureBytes, temporaryWorkspace, begunScene } from '../../../test/workspace';
import { createEstimator } from './estimate-output';
import { fileStem } from './file-names';
import { createOutputJobs, type OutputStatus } from './output-jobs';
import { renderRgb } from './render-picture';
import { LIMITS } from '../http/limits';
import { createServerRenderer } from './render-service';
import { openScene } from '../scenes/scene-repository';
import { seedDemo } from '../scenes/seed';
import { sceneThumbnail } from './thumbnail';
import type { Workspace } from '../assets/workspace';

/** Formats that hold the codes of one picture; the others have tests of their own. */
const PICTURES = OUTPUT_FORMAT_NAMES.filter(
  (name) => !('hasLayers' in OUTPUT_FORMATS[name]) && !('isLinear' in OUTPUT_FORMATS[name]),
);

const SIZE = { width: 360, height: 600 };
let space: Workspace;
let remove: () => Promise<void>;
let renderer: Renderer;
let scene: Scene;
beforeAll(async () => {
  ({ space, remove } = await temporaryWorkspace());
  const id = await begunScene(space, await pictureBytes(SIZE.width, SIZE.height));
  scene = { ...streetScene([streetLamp('one', 0.5)]), plate: openScene(space, id).scene.plate };
  renderer = createServerRenderer(space);
});
afterAll(async () => {
  renderer.close();
  await remove();
});

const picture = (choice: OutputChoice) => ({ kind: 'picture', scene, choice }) as const;

/** Waits until a job has ended, by asking again as the interface does. */
async function ended(jobs: ReturnType<typeof createOutputJobs>, id: string): Promise<OutputStatus> {
  for (;;) {
    const status = jobs.status(id);
    if (status.state !== 'running' && status.state !== 'waiting') return status;
    await new Promise((resolve) => setImmediate(resolve));
  }
}

describe('renderRgb', () => {
  it('makes in bands what a frame makes at once, with progress to the end', async () => {
    const progress: number[] = [];
    const rgb = await renderRgb(renderer, scene, SIZE, new AbortController().signal, (p) => progress.push(p));
    const region = wholeRegion(SIZE.width, SIZE.height);
    const whole = await renderer.frame({ scene, region }, new AbortController().signal, (pixels) =>
      pixels.slice(),
    );
    let most = 0;
    for (let i = 0; i < rgb.length / 3; i++) most = Math.max(most, Math.abs(rgb[3 * i] - whole[4 * i]));
    expect(most).toBeLessThanOrEqual(1);
    expect(progress.length).toBeGreaterThan(1);
    expect(progress.at(-1)).toBe(1);
  });
});

describe('output jobs', () => {
  it.each(PICTURES)('write a %s as it is on the screen, with an sRGB profile', async (format) => {
    const jobs = createOutputJobs(space, renderer);
    const { id } = jobs.start(picture({ format, quality: 92 }));
    expect(() => jobs.file(id)).toThrow('not finished');
    const status = await ended(jobs, id);
    expect(status).toMatchObject({ state: 'done', progress: 1 });
    const { path, mime, fileName } = jobs.file(id);
    const { ending, bits, hasQuality, mime: own } = OUTPUT_FORMATS[format];
    expect(fileName.endsWith(`.${ending}`)).toBe(true);
    expect(mime).toBe(own);
    const meta = await sharp(path).metadata();
    expect(meta).toMatchObject({ ...SIZE, depth: bits === 16 ? 'ushort' : 'uchar' });
    expect(meta.icc).toBeDefined();
    expect((await readFile(path)).byteLength).toBe(status.bytes);

    const region = wholeRegion(SIZE.width, SIZE.height);
    const shown = await renderer.frame({ scene, region }, new AbortController().signal, (codes) =>
      codes.slice(),
    );
    // By its profile the package would turn 16 bits into Display P3.
    const { data } = await sharp(path, { ignoreIcc: bits === 16 })
      .toColourspace(bits === 16 ? 'rgb16' : 'srgb')
      .raw({ depth: bits === 16 ? 'ushort' : 'uchar' })
      .toBuffer({ resolveWithObject: true });
    const read = bits === 16 ? new Uint16Array(data.buffer, data.byteOffset, data.length / 2) : data;
    const off = Array.from({ length: read.length }, (_, k) => {
      const wanted = shown[4 * Math.floor(k / 3) + (k % 3)];
      return Math.abs(read[k] / (bits === 16 ? 257 : 1) - wanted);
    });
    const mean = off.reduce((sum, value) => sum + value, 0) / off.length;
    if (hasQuality) expect(mean).toBeLessThan(3);
    // Codes of 8 bits are rounded, and kernels may be one beside the core.
    else expect(off.reduce((most, value) => Math.max(most, value), 0)).toBeLessThan(bits === 16 ? 1.6 : 1.1);
    // Finer steps are there, not only room for them.
    if (bits === 16) expect(read.some((code) => code % 257 !== 0)).toBe(true);
  });

  it('write a smaller picture, made at its own size', async () => {
    const jobs = createOutputJobs(space, renderer);
    const { id } = jobs.start(picture({ format: 'png', quality: 92, long: 150 }));
    await ended(jobs, id);
    expect(await sharp(jobs.file(id).path).metadata()).toMatchObject({ width: 90, height: 150 });
  });

  it('stop when they are cancelled, and leave no file', async () => {
    const files = () => readdir(join(space.dataDir, 'outputs')).catch(() => []);
    const before = await files();
    const jobs = createOutputJobs(space, renderer);
    const { id } = jobs.start(picture({ format: 'png', quality: 90 }));
    expect((await jobs.cancel(id)).state).toBe('cancelled');
    expect(await files()).toEqual(before);
  });

  it('wait in line, tell their place, and leave it when they are cancelled', async () => {
    let goOn = () => {};
    const gate = new Promise<void>((resolve) => (goOn = resolve));
    const slow: Renderer = {
      ...renderer,
      frame: (request, signal, consume) => gate.then(() => renderer.frame(request, signal, consume)),
    };
    const jobs = createOutputJobs(space, slow, 1);
    const start = () => jobs.start(picture({ format: 'jpeg', quality: 80 }));
    const [first, second, third, fourth] = [start(), start(), start(), start()].map(({ id }) => id);
    expect([first, second, third, fourth].map((id) => jobs.status(id))).toMatchObject([
      { state: 'running' },
      { state: 'waiting', ahead: 1 },
      { state: 'waiting', ahead: 2 },
      { state: 'waiting', ahead: 3 },
    ]);
    expect(await jobs.cancel(second)).toMatchObject({ state: 'cancelled' });
    expect(jobs.status(fourth)).toMatchObject({ state: 'waiting', ahead: 2 });
    goOn();
    const ends = await Promise.all([first, third, fourth].map((id) => ended(jobs, id)));
    expect(ends.map(({ state }) => state)).toEqual(['done', 'done', 'done']);
  });

  it('are refused when too many are on their way', async () => {
    const never: Renderer = {
      ...renderer,
      frame: (_request, signal) =>
        new Promise((_, reject) => signal.addEventListener('abort', () => reject(abortError()))),
    };
    const jobs = createOutputJobs(space, never, 1);
    const started = Array.from({ length: LIMITS.outputs }, () =>
      jobs.start(picture({ format: 'png', quality: 90 })),
    );
    expect(() => jobs.start(picture({ format: 'png', quality: 90 }))).toThrow(
      expect.objectContaining({ status: 429 }) as Error,
    );
    await Promise.all(started.reverse().map(({ id }) => jobs.cancel(id)));
    expect(jobs.status(started[0].id).state).toBe('cancelled');
  });

  it('let a thumbnail go first: it waits for one band, not for the picture', async () => {
    const order: string[] = [];
    const watched: Renderer = {
      ...renderer,
      frame: (request, signal, consume) =>
        renderer.frame(request, signal, (pixels) => {
          order.push(request.turn ?? 'soon');
          return consume(pixels);
        }),
    };
    const jobs = createOutputJobs(space, watched, 2);
    const ids = Array.from({ length: 3 }, () => jobs.start(picture({ format: 'jpeg', quality: 80 })).id);
    await renderRgb(watched, scene, { width: 120, height: 200 }, new AbortController().signal);
    expect(order.indexOf('soon')).toBeLessThanOrEqual(1);
    await Promise.all(ids.map((id) => ended(jobs, id)));
    expect(order.filter((turn) => turn === 'later')).toHaveLength(9);
  });

  it('say why they failed', async () => {
    const full: Renderer = {
      ...renderer,
      frame: () => Promise.reject(Object.assign(new Error(), { code: 'ENOSPC' })),
    };
    const jobs = createOutputJobs(space, full);
    const status = await ended(jobs, jobs.start(picture({ format: 'png', quality: 90 })).id);
    expect(status).toMatchObject({
      state: 'failed',
      reason: expect.stringContaining('disk is full') as string,
    });
  });

  it('that are not known are said to be gone', () => {
    expect(() => createOutputJobs(space, renderer).status('none')).toThrow('Send it out again');
  });
});

it.each(['jpeg', 'png', 'png16', 'avif'] as const)(
  'the size of a %s is told beforehand, roughly',
  async (format) => {
    const rgb = Uint8Array.from({ length: 3 * 600 * 400 }, (_, i) => {
      const [x, y] = [Math.floor(i / 3) % 600, Math.floor(i / 1800)];
      return 90 + 60 * Math.sin(x / 9 + y / 31) * Math.sin(y / 13) + ((x * 7919 + y * 104729) % 23);
    });
    const png = await sharp(rgb, { raw: { width: 600, height: 400, channels: 3 } })
      .png()
      .toBuffer();
    const open = openScene(space, await begunScene(space, png));
    const estimator = createEstimator(renderer);
    const choice: OutputChoice = { format, quality: 90 };
    const { signal } = new AbortController();
    const told = (await estimator.bytes(open, choice, signal))!;
    const jobs = createOutputJobs(space, renderer);
    const { bytes } = await ended(jobs, jobs.start({ kind: 'picture', scene: open.scene, choice }).id);
    expect(told / bytes!).toBeGreaterThan(0.7);
    expect(told / bytes!).toBeLessThan(1.4);
    expect(await estimator.bytes(open, { ...choice, format: 'ora' }, signal)).toBeUndefined();
  },
);

it('file names hold nothing but letters, digits and dashes', () => {
  expect(fileStem('Ferry steps, 3rd “try”/../é')).toBe('ferry-steps-3rd-try-e-night');
  expect(fileStem('???')).toBe('scene-night');
});

it('seeds the demo scenes once, and never again what was deleted', async () => {
  const demo = join(process.cwd(), 'demo');
  const added = await seedDemo(space, demo);
  expect(added).toContain('ferry-steps');
  expect(await seedDemo(space, demo)).toEqual([]);
  const night = await sceneThumbnail(
    space.dataDir,
    space.plates,
    renderer,
    openScene(space, 'ferry-steps'),
    'night',
    new AbortController().signal,
  );
  const day = await sceneThumbnail(
    space.dataDir,
    space.plates,
    renderer,
    openScene(space, 'ferry-steps'),
    'day',
    new AbortController().signal,
  );
  const mean = async (jpeg: Uint8Array) => (await sharp(jpeg).stats()).channels[0].mean;
  expect(await mean(night)).toBeLessThan((await mean(day)) / 1.4);
});
