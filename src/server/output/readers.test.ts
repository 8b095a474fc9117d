import { mkdtemp, open, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import sharp from 'sharp';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { linearOfCodes } from '@/core/color/srgb-codes';
import { OUTPUT_FORMAT_NAMES, OUTPUT_FORMATS, type OutputChoice } from '@/core/output/output-formats';
import { wholeRegion } from '@/core/plane/region';
import type { Scene } from '@/core/scene/schema';
import type { Renderer } from '@/engine/renderer';
import { codesOf, exrHeader, hasProgram, tagsOf } from '../../../test/readers';
import { streetLamp, streetScene } from '../../../test/street';
import { unzipped } from '../../../test/unzipped';
import { begunScene, temporaryWorkspace } from '../../../test/workspace';
import type { Workspace } from '../assets/workspace';
import { openScene } from '../scenes/scene-repository';
import { profileOf } from './colour-profile';
import { createServerRenderer } from './render-service';
import { writeOutput } from './write-output';

/* What is written is read back by programs that have no code in common with what wrote it. */

const SIZE = { width: 150, height: 250 };
const { signal } = new AbortController();
let space: Workspace;
let remove: () => Promise<void>;
let renderer: Renderer;
let scene: Scene;
let folder: string;

/** A photo with a coloured slope, that says which camera took it and where. */
const photo = () =>
  sharp(
    Uint8Array.from({ length: 3 * SIZE.width * SIZE.height }, (_, i) => {
      const [x, y] = [Math.floor(i / 3) % SIZE.width, Math.floor(i / 3 / SIZE.width)];
      return [60 + x, 220 - y / 2, 90 + ((x + y) % 120)][i % 3];
    }),
    { raw: { ...SIZE, channels: 3 } },
  )
    .jpeg({ quality: 95 })
    .withExif({
      IFD0: { Make: 'Larkfield', Model: 'Pocket 3' },
      IFD3: {
        GPSLatitudeRef: 'N',
        GPSLatitude: '12/1 30/1 0/1',
        GPSLongitudeRef: 'E',
        GPSLongitude: '7/1 6/1 0/1',
      },
    })
    .toBuffer();

beforeAll(async () => {
  ({ space, remove } = await temporaryWorkspace());
  folder = await mkdtemp(join(tmpdir(), 'sundew-readers-'));
  const id = await begunScene(space, await photo());
  const lamp = streetLamp('one', 0.5);
  scene = { ...streetScene([lamp]), title: 'Kai – am Abend', plate: openScene(space, id).scene.plate };
  renderer = createServerRenderer(space);
});
afterAll(async () => {
  renderer.close();
  await remove();
  await rm(folder, { recursive: true });
});

async function written(choice: Partial<OutputChoice> & Pick<OutputChoice, 'format'>): Promise<string> {
  const path = join(folder, `${Object.values(choice).join('-')}.${OUTPUT_FORMATS[choice.format].ending}`);
  const file = await open(path, 'w');
  const work = { renderer, space, scene, size: SIZE, signal, onProgress: () => {} };
  await writeOutput(file, work, { quality: 95, ...choice }).finally(() => file.close());
  return path;
}

/** What the screen shows, codes of 8 bits as codes of 16. */
const shown = () =>
  renderer.frame({ scene, region: wholeRegion(SIZE.width, SIZE.height) }, signal, (rgba) =>
    Uint16Array.from(
      { length: 3 * SIZE.width * SIZE.height },
      (_, k) => 257 * rgba[4 * Math.floor(k / 3) + (k % 3)],
    ),
  );

/** Mean and greatest difference, in codes of 8 bits. */
function apart(a: ArrayLike<number>, b: ArrayLike<number>): { mean: number; most: number } {
  expect(a.length).toBe(b.length);
  let [sum, most] = [0, 0];
  for (let k = 0; k < a.length; k++) {
    const off = Math.abs(a[k] - b[k]) / 257;
    sum += off;
    most = Math.max(most, off);
  }
  return { mean: sum / a.length, most };
}

describe.skipIf(!hasProgram('convert-im6.q16'))('pictures, by another reader', () => {
  it.each(['png', 'png16', 'tiff'] as const)('a %s is the screen within a step', async (format) => {
    expect(apart(codesOf(await written({ format })), await shown()).most).toBeLessThan(1.6);
  });

  it.each(['jpeg', 'webp', 'avif', 'avif10'] as const)(
    'a %s is the screen within its loss',
    async (format) => {
      expect(apart(codesOf(await written({ format })), await shown()).mean).toBeLessThan(3);
    },
  );

  it('a TIFF of floats holds the linear light of the codes', async () => {
    const linear = linearOfCodes(65535);
    const codes = codesOf(await written({ format: 'png16' }));
    const wanted = codes.map((code) => Math.round(65535 * linear[code]));
    expect(apart(codesOf(await written({ format: 'tiff32' })), wanted).most).toBeLessThan(1);
  });

  it('Display P3 comes back as the same colours, by its profile', async () => {
    const plain = await written({ format: 'png16' });
    const profile = join(folder, 'srgb.icc');
    await writeFile(profile, await profileOf('srgb'));
    const wide = await written({ format: 'png16', colours: 'p3' });
    const codes = codesOf(plain);
    expect(apart(codesOf(wide), codes).most).toBeGreaterThan(3);
    expect(apart(codesOf(wide, '-profile', profile), codes).most).toBeLessThan(1.5);
  });

  it('the merged picture of OpenRaster is the screen', async () => {
    const merged = join(folder, 'merged.png');
    await writeFile(merged, (await unzipped(await written({ format: 'ora' }))).get('mergedimage.png')!);
    expect(apart(codesOf(merged), await shown()).most).toBeLessThan(1.6);
  });
});

describe.skipIf(!hasProgram('exiftool'))('what files say of themselves, by another reader', () => {
  const coded = OUTPUT_FORMAT_NAMES.filter(
    (name) => !('hasLayers' in OUTPUT_FORMATS[name]) && name !== 'tiff32',
  );

  it.each(coded)('a %s has its size, its profile and what was lit, and no place', async (format) => {
    const tags = tagsOf(await written({ format }));
    expect(tags).toMatchObject({ ImageWidth: SIZE.width, ImageHeight: SIZE.height, Title: scene.title });
    expect(tags.ProfileDescription).toMatch(/sRGB/i);
    expect(tags.Make).toBe('Larkfield');
    expect(tags.Description).toBe('Lit: street (1).');
    expect(Object.keys(tags).filter((name) => name.startsWith('GPS'))).toEqual([]);
  });

  it('the place goes along when it is wanted, and nothing at all when that is', async () => {
    const all = tagsOf(await written({ format: 'jpeg', facts: 'all' }));
    expect(all.GPSLatitude).toBeCloseTo(12.5, 6);
    expect(all.GPSLongitude).toBeCloseTo(7.1, 6);
    const none = tagsOf(await written({ format: 'jpeg', facts: 'none' }));
    expect(none.Make).toBeUndefined();
    expect(tagsOf(await written({ format: 'jpeg', colours: 'p3' })).ProfileDescription).toMatch(/P3/);
  });
});

it.skipIf(!hasProgram('exrheader'))(
  'OpenEXR has its channels in half floats, by the tools of the standard',
  async () => {
    const header = exrHeader(await written({ format: 'exr' }));
    for (const channel of ['R', 'day.R', 'night.G', 'sky.B', 'normal.X'])
      expect(header).toContain(`${channel}, 16-bit floating-point`);
    expect(header).toMatch(/compression \(type compression\): zip/);
  },
);
