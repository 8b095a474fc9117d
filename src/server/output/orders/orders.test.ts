import { rm } from 'node:fs/promises';
import sharp from 'sharp';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { OutputOrder } from '@/core/output/output-order';
import { FIRST_SWITCHING, type Switching } from '@/core/output/switching';
import { SCENE_VERSION, type Scene } from '@/core/scene/schema';
import type { Renderer } from '@/engine/renderer';
import { streetLamp, streetScene, testCircuit } from '../../../../test/street';
import { unzipped } from '../../../../test/unzipped';
import { begunScene, pictureBytes, temporaryWorkspace } from '../../../../test/workspace';
import { outputs } from '@/db/schema';
import { parseCube } from '@/core/grade/cube-lut';
import { writeTable } from '../write-table';
import type { Workspace } from '../../assets/workspace';
import { openScene } from '../../scenes/scene-repository';
import { createOutputJobs, type OutputJobs, type OutputStatus } from '../output-jobs';
import { renderRgb } from '../render-picture';
import { createServerRenderer } from '../render-service';

const SIZE = { width: 180, height: 300 };
const NEVER = new AbortController().signal;
let space: Workspace;
let remove: () => Promise<void>;
let renderer: Renderer;
let scene: Scene;
let jobs: OutputJobs;
beforeAll(async () => {
  ({ space, remove } = await temporaryWorkspace());
  const id = await begunScene(space, await pictureBytes(SIZE.width, SIZE.height));
  const lamps = [0.3, 0.5, 0.7].map((u, i) => streetLamp(String(i), u, { circuit: i < 2 ? 'a' : 'b' }));
  const circuits = [testCircuit('a'), testCircuit('b')];
  scene = { ...streetScene(lamps), circuits, plate: openScene(space, id).scene.plate };
  renderer = createServerRenderer(space);
  jobs = createOutputJobs(space, renderer);
});
afterAll(async () => {
  renderer.close();
  await remove();
});

async function ended(id: string, of = jobs): Promise<OutputStatus> {
  for (;;) {
    const status = of.status(id);
    if (status.state !== 'running' && status.state !== 'waiting') return status;
    await new Promise((resolve) => setImmediate(resolve));
  }
}

/** Carries an order out: the path of its file. */
async function made(order: OutputOrder): Promise<string> {
  const { id } = jobs.start(order);
  expect(await ended(id)).toMatchObject({ state: 'done', progress: 1 });
  return jobs.file(id).path;
}

const titled = (title: string, more: Partial<Scene> = {}): Scene => ({ ...scene, title, ...more });

describe('pictures of several scenes', () => {
  it('go out in one ZIP, numbered where titles are alike, each as it goes out alone', async () => {
    const choice = { format: 'png', quality: 90, long: 150 } as const;
    const dark = titled('Quay', { circuits: scene.circuits.map((own) => ({ ...own, muted: true })) });
    const scenes = [titled('Quay'), dark, titled('Yard')];
    const parts = await unzipped(await made({ kind: 'pictures', scenes, choice }));
    expect([...parts.keys()]).toEqual(['quay-night.png', 'quay-night-2.png', 'yard-night.png']);
    const alone = await sharp(await made({ kind: 'picture', scene: dark, choice }))
      .raw()
      .toBuffer();
    expect((await sharp(parts.get('quay-night-2.png')).raw().toBuffer()).equals(alone)).toBe(true);
    expect((await sharp(parts.get('quay-night.png')).raw().toBuffer()).equals(alone)).toBe(false);
  });

  it('go out without one whose photo is gone, and say which', async () => {
    const lost = titled('Lost', { plate: { ...scene.plate, asset: 'f'.repeat(64) } });
    const choice = { format: 'jpeg', quality: 80 } as const;
    const { id } = jobs.start({ kind: 'pictures', scenes: [titled('Here'), lost], choice });
    const status = await ended(id);
    expect(status).toMatchObject({
      state: 'done',
      reason: expect.stringMatching(/^Missing: Lost/) as string,
    });
    expect([...(await unzipped(jobs.file(id).path)).keys()]).toEqual(['here-night.jpg']);
    const none = await ended(jobs.start({ kind: 'pictures', scenes: [lost], choice }).id);
    expect(none).toMatchObject({ state: 'failed', reason: expect.stringContaining('Lost') as string });
  });
});

describe('a switching-on', () => {
  const going: Switching = { ...FIRST_SWITCHING, seconds: 1, hold: 1.5, fps: 8, long: 150, quality: 95 };

  it('is an animated picture that begins dark, ends as the scene is, and stands', async () => {
    const path = await made({ kind: 'switching', scene, switching: going });
    const { pages, pageHeight, width, delay, loop } = await sharp(path, { animated: true }).metadata();
    expect({ pageHeight, width, loop }).toEqual({ pageHeight: 150, width: 90, loop: 0 });
    // Pictures that are alike are one that stands longer.
    expect(pages).toBeGreaterThan(4);
    expect(delay!.reduce((sum, one) => sum + one, 0)).toBe(9 * 125 + 1500);
    const page = (k: number) => sharp(path, { page: k }).removeAlpha().raw().toBuffer();
    const size = { width: 90, height: 150 };
    const still = await renderRgb(renderer, scene, size, NEVER);
    const off = (a: Uint8Array, b: ArrayLike<number>) =>
      a.reduce((sum, code, i) => sum + Math.abs(code - b[i]), 0) / a.length;
    expect(off(await page(pages! - 1), still)).toBeLessThan(2.5);
    expect(off(await page(0), still)).toBeGreaterThan(6);
  });

  it('is numbered pictures, whose last one is the scene’s own to the code', async () => {
    const switching: Switching = { ...going, form: 'pngs', ways: [{ circuit: 'a', way: 'oneByOne' }] };
    const parts = await unzipped(await made({ kind: 'switching', scene, switching }));
    const names = [...parts.keys()];
    expect(names).toHaveLength(9);
    expect(names[0]).toMatch(/-0001\.png$/);
    const last = await sharp(parts.get(names[8])).raw().toBuffer();
    const still = await renderRgb(renderer, scene, { width: 90, height: 150 }, NEVER);
    // Light of a parted circuit is summed in another order.
    expect(last.reduce((most, code, i) => Math.max(most, Math.abs(code - still[i])), 0)).toBeLessThanOrEqual(
      1,
    );
    const bright = await Promise.all(
      names.map(async (name) => (await sharp(parts.get(name)).stats()).channels[0].mean),
    );
    expect(bright).toEqual([...bright].sort((a, b) => a - b));
  });

  it('is framed as the scene is', async () => {
    const framed = titled('Turned', { frame: { ...scene.frame, width: 0.6, height: 0.5, angle: 5 } });
    const path = await made({ kind: 'switching', scene: framed, switching: { ...going, form: 'pngs' } });
    const [, last] = [...(await unzipped(path)).entries()].at(-1)!;
    const { width, height } = await sharp(last).metadata();
    const still = await renderRgb(renderer, framed, { width, height }, NEVER);
    const codes = await sharp(last).raw().toBuffer();
    expect(codes.reduce((most, code, i) => Math.max(most, Math.abs(code - still[i])), 0)).toBeLessThanOrEqual(
      1,
    );
  });
});

describe('outputs and the server’s end', () => {
  const order = { kind: 'picture', choice: { format: 'png', quality: 90, long: 100 } } as const;

  /** An output as a server that was killed left it. */
  const leave = (id: string, state: 'running' | 'waiting', version = SCENE_VERSION) => {
    const row = { id, order: { ...order, scene }, version, state, createdAt: 1 };
    space.db
      .insert(outputs)
      .values({ ...row, fileName: `${id}.png`, mime: 'image/png' })
      .run();
  };

  it('are taken up by the next server: what was finished is there, what was half made begins anew', async () => {
    const done = jobs.start({ ...order, scene });
    expect((await ended(done.id)).state).toBe('done');
    leave('half', 'running');
    leave('behind', 'waiting');
    const next = createOutputJobs(space, renderer);
    expect(next.file(done.id).path).toBe(jobs.file(done.id).path);
    for (const id of ['half', 'behind']) {
      expect(await ended(id, next)).toMatchObject({ state: 'done' });
      expect(await sharp(next.file(id).path).metadata()).toMatchObject({ width: 60, height: 100 });
    }
    expect(next.all().map(({ id }) => id)).toEqual(expect.arrayContaining([done.id, 'half', 'behind']));
    // What was made is not made again.
    expect(createOutputJobs(space, renderer).status('half').state).toBe('done');
  });

  it('are not made from scenes of another version, nor handed out when their file is gone', async () => {
    const { id } = jobs.start({ ...order, scene });
    await ended(id);
    await rm(jobs.file(id).path);
    expect(() => jobs.file(id)).toThrow('tidied away');
    leave('old', 'running', 1);
    expect(createOutputJobs(space, renderer).status('old')).toMatchObject({
      ...{ state: 'failed', reason: expect.stringContaining('updated') as string },
    });
  });
});

describe('a night as a table', () => {
  const plain = (night: Scene['night']): Scene['night'] => ({
    ...night,
    ...{ haze: 0, evenOut: 0, surround: { ...night.surround, stops: 0 } },
  });

  /** A photo of many colours. */
  async function colourful(): Promise<Scene> {
    const rgb = Uint8Array.from({ length: 3 * 160 * 120 }, (_, i) => {
      const [x, y] = [Math.floor(i / 3) % 160, Math.floor(i / 480)];
      return [1.5 * x, 2 * y, 255 - x - (y % 40)][i % 3];
    });
    const png = await sharp(rgb, { raw: { width: 160, height: 120, channels: 3 } })
      .png()
      .toBuffer();
    const { plate } = openScene(space, await begunScene(space, png)).scene;
    return { ...scene, plate, sky: { ...scene.sky, from: 'plate' } };
  }

  it.each([17, 33, 65] as const)(
    'of side %i is as the picture is where nothing goes by place',
    async (side) => {
      const bare = { ...(await colourful()), night: plain(scene.night) };
      const { text, off, missing } = await writeTable(space, renderer, bare, side, NEVER);
      expect(missing).toEqual([]);
      expect(off.mean).toBeLessThan(0.8);
      expect(off.most).toBeLessThan(3);
      expect(parseCube(text)).toMatchObject({ dimensions: 3, size: side });
      expect(text).toContain(`by less than ${off.most.toFixed(1)}.`);
    },
  );

  it('says what it lacks where much goes by place', async () => {
    const { text, missing } = await writeTable(
      space,
      renderer,
      { ...scene, night: { ...scene.night, haze: 0.5 } },
      17,
      NEVER,
    );
    expect(missing).toContain('haze');
    expect(text).toMatch(/^# Not in it, since it goes by place: .*haze/m);
  });
});
