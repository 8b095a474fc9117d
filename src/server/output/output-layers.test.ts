import { mkdtemp, open, readFile, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import sharp from 'sharp';
import { FloatType } from 'three';
import { EXRLoader } from 'three/examples/jsm/loaders/EXRLoader.js';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { setFrame } from '@/core/scene/commands';
import type { Scene } from '@/core/scene/schema';
import { wholeRegion } from '@/core/plane/region';
import { lightLayers } from '@/engine/readouts/light-layers';
import type { Renderer } from '@/engine/renderer';
import { after, half } from '../../../test/spy-renderer';
import { streetLamp, streetScene, testCircuit } from '../../../test/street';
import { begunScene, pictureBytes, temporaryWorkspace } from '../../../test/workspace';
import type { Workspace } from '../assets/workspace';
import { openScene } from '../scenes/scene-repository';
import { unzipped } from '../../../test/unzipped';
import { createExr, LONGEST_NAME } from './exr-file';
import { createServerRenderer } from './render-service';
import { layerNames } from './write-exr';
import { added, withFirst } from './write-ora';
import { writeOutput } from './write-output';

const SIZE = { width: 180, height: 300 };
const { signal } = new AbortController();
let space: Workspace;
let remove: () => Promise<void>;
let renderer: Renderer;
let scene: Scene;
let folder: string;
beforeAll(async () => {
  ({ space, remove } = await temporaryWorkspace());
  folder = await mkdtemp(join(tmpdir(), 'sundew-layers-'));
  const id = await begunScene(space, await pictureBytes(SIZE.width, SIZE.height));
  const lamps = [streetLamp('left', 0.3), streetLamp('right', 0.7, { circuit: 'other', lumens: 900 })];
  scene = {
    ...streetScene(lamps),
    plate: openScene(space, id).scene.plate,
    circuits: [testCircuit('street', { name: 'Straße & Markt' }), testCircuit('other')],
    mattes: [half],
  };
  renderer = createServerRenderer(space);
});
afterAll(async () => {
  renderer.close();
  await remove();
  await rm(folder, { recursive: true });
});

async function written(format: 'exr' | 'ora' | 'png', of = scene, size = SIZE): Promise<string> {
  const path = join(folder, `out.${format}`);
  const file = await open(path, 'w');
  const work = { renderer, space, scene: of, size, signal, onProgress: () => {} };
  await writeOutput(file, work, { format, quality: 90 }).finally(() => file.close());
  return path;
}

const codesOf = async (png: Uint8Array | string) => new Uint8Array(await sharp(png).raw().toBuffer());

describe('OpenRaster', () => {
  it('holds layers that add up to the merged picture, which is that of a PNG', async () => {
    const parts = await unzipped(await written('ora'));
    expect([...parts.keys()][0]).toBe('mimetype');
    expect(parts.get('mimetype')!.toString()).toBe('image/openraster');
    const merged = await codesOf(parts.get('mergedimage.png')!);
    expect(merged).toEqual(await codesOf(await written('png')));
    const xml = parts.get('stack.xml')!.toString();
    const layers = [
      ...xml.matchAll(/name="([^"]*)" src="([^"]*)" composite-op="([^"]*)".*visibility="(\w+)"/g),
    ];
    const shown = layers.filter(([, , , , visibility]) => visibility === 'visible');
    expect(shown.map(([, name, , blend]) => [name, blend])).toEqual([
      ['other', 'svg:plus'],
      ['Straße &#38; Markt', 'svg:plus'],
      ['Night', 'svg:src-over'],
    ]);
    const sum = new Uint16Array(merged.length);
    for (const [, , file] of shown) (await codesOf(parts.get(file)!)).forEach((code, i) => (sum[i] += code));
    expect(Uint8Array.from(sum)).toEqual(merged);
    expect(layers.map(([, name]) => name)).toContain('Matte: Half');
    expect(await codesOf(parts.get('data/day.png')!)).not.toEqual(merged);
    expect((await sharp(parts.get('Thumbnails/thumbnail.png')).metadata()).height).toBe(256);
  });

  it('lowers what lies below where film lets a channel sink, so that layers only add', () => {
    const lower = Uint8Array.of(10, 20, 30);
    expect(added(Uint8Array.of(12, 18, 30), lower)).toEqual(Uint8Array.of(2, 0, 0));
    expect(lower).toEqual(Uint8Array.of(10, 18, 30));
    expect(withFirst(scene, 1).circuits.map(({ muted }) => muted)).toEqual([false, true]);
  });
});

/** What another program reads of an OpenEXR file's first picture: RGBA, the lowest row first. */
function readExr(bytes: Buffer): { width: number; height: number; data: Float32Array } {
  const buffer = bytes.buffer.slice(bytes.byteOffset, bytes.byteOffset + bytes.byteLength) as ArrayBuffer;
  const loader = new EXRLoader().setDataType(FloatType);
  return loader.parse(buffer) as unknown as { width: number; height: number; data: Float32Array };
}

describe('OpenEXR', () => {
  it('is read by another reader as the linear light that was written, in every block', async () => {
    const path = join(folder, 'plain.exr');
    const file = await open(path, 'w');
    const [width, height] = [37, 41];
    const exr = await createExr(file, ['R', 'G', 'B'], width, height);
    const value = (x: number, y: number, c: number) => (x + 2 * y + 5 * c) / 16;
    for (let top = 0; top < height; top += 16) {
      const rows = Math.min(16, height - top);
      const plane = (c: number) =>
        Float32Array.from({ length: rows * width }, (_, i) =>
          value(i % width, top + Math.floor(i / width), c),
        );
      await exr.writeBlock(
        new Map([
          ['R', plane(0)],
          ['G', plane(1)],
          ['B', plane(2)],
        ]),
        0,
      );
    }
    await exr.finish();
    await file.close();
    const read = readExr(await readFile(path));
    expect([read.width, read.height]).toEqual([width, height]);
    for (let y = 0; y < height; y++)
      for (let x = 0; x < width; x++)
        for (let c = 0; c < 3; c++) {
          const got = read.data[4 * ((height - 1 - y) * width + x) + c];
          expect(Math.abs(got - value(x, y, c))).toBeLessThan(0.006);
        }
  });

  it('names its channels by the standard, and each layer once', async () => {
    const path = await written('exr');
    const head = (await readFile(path)).subarray(0, 4000).toString('latin1');
    const wanted = [
      'R',
      'day.R',
      'night.G',
      'sky.B',
      'stra_e_markt.R',
      'other.G',
      'depth.Z',
      'normal.X',
      'matte_half.A',
    ];
    for (const name of wanted) expect(head).toContain(`${name}\0`);
    expect(layerNames(['Day', 'Day!', '灯', 'a'.repeat(80)], ['day'])).toEqual([
      'day_2',
      'day_3',
      'layer',
      'a'.repeat(LONGEST_NAME - 6),
    ]);
  });

  it('takes light apart so that night and circuits are the sum, also in a crop', async () => {
    const region = wholeRegion(SIZE.width, SIZE.height);
    const { night, circuits, depth } = await renderer.read(lightLayers({ scene, region }), signal);
    expect(circuits).toHaveLength(2);
    expect(Math.max(...circuits[0].g)).toBeGreaterThan(0.1);
    expect(depth.every((metres) => metres > 0)).toBe(true);
    expect(Math.max(...night.b)).toBeGreaterThan(0);
    const cropped = after(scene, setFrame('Crop', { width: 0.5, height: 0.5, angle: 5 }));
    expect(
      (await readFile(await written('exr', cropped, { width: 90, height: 150 }))).byteLength,
    ).toBeGreaterThan(10_000);
  });
});
