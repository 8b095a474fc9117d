import { readdir, readFile, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { Readable } from 'node:stream';
import sharp from 'sharp';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { srgb } from '@/core/color/srgb';
import { wholeRegion } from '@/core/plane/region';
import { flatDng } from '../../../test/dng';
import { COLORANTS, matrixProfile, pngWithProfile, tablesProfile } from '../../../test/icc';
import {
  claimingPng,
  pictureBytes,
  sceneFileBytes,
  temporaryWorkspace,
  begunScene,
  receiveBytes,
} from '../../../test/workspace';
import { assetPath, receiveFile } from '../assets/asset-store';
import { readColorProfile } from '../plates/color-profile';
import { beginScene, takeSky, titleFrom } from './intake';
import { readLens } from '../plates/open-plate';
import { createPlateReader } from '../plates/plate-codes';
import { listScenes, openScene } from './scene-repository';
import type { Workspace } from '../assets/workspace';

let space: Workspace;
let remove: () => Promise<void>;
beforeAll(async () => ({ space, remove } = await temporaryWorkspace()));
afterAll(() => remove());

const begin = (bytes: Uint8Array, name = 'a.jpg') => begunScene(space, bytes, name);

describe('a picture of a sky', () => {
  const laid = {
    name: 'dusk',
    at: { u: 0.5, v: 0.2 },
    across: 1.2,
    turn: 0,
    share: 1,
    exposure: 0,
    fit: 0.6,
  };

  it('is whatever a plate could be, and goes along in the scene’s file', async () => {
    const { scene } = openScene(space, await begin(await pictureBytes()));
    const sixteen = await sharp(await pictureBytes(120, 80))
      .toColourspace('rgb16')
      .png()
      .toBuffer();
    const taken = await takeSky(space, await receiveBytes(space, sixteen));
    expect(taken).toMatchObject({ width: 120, height: 80 });
    const { asset, width, height } = taken;
    const skied = { ...scene, sky: { ...scene.sky, picture: { ...laid, asset, width, height } } };
    const there = await temporaryWorkspace();
    const file = await sceneFileBytes(space, skied);
    const again = openScene(there.space, await begunScene(there.space, file, 'a.sundew')).scene;
    expect(again.sky).toEqual(skied.sky);
    expect(await readFile(assetPath(there.space.dataDir, asset))).toEqual(sixteen);
    await there.remove();
  });

  it.each([
    ['a picture of one pixel', () => pictureBytes(1, 1, 'png')],
    ['more than a hundred megapixels', () => Promise.resolve(claimingPng(20000, 20000))],
    ['what is no picture', () => Promise.resolve(Buffer.from('hello'))],
  ])('is not %s: a clear word says why', async (_name, bytes) => {
    await expect(takeSky(space, await receiveBytes(space, await bytes()))).rejects.toMatchObject({
      status: expect.toSatisfy(
        (status: number) => status === 413 || status === 415 || status === 422,
      ) as number,
      message: expect.stringMatching(/\w+ .*\./) as string,
    });
  });

  it('is missed in a file that lacks it', async () => {
    const { scene } = openScene(space, await begin(await pictureBytes()));
    const picture = { ...laid, asset: scene.plate.asset, width: 96, height: 64 };
    const other = await takeSky(space, await receiveBytes(space, await pictureBytes(130, 90)));
    const file = await sceneFileBytes(space, { ...scene, sky: { ...scene.sky, picture } });
    const text = file.toString('latin1').replaceAll('pictures/sky', 'pictures/spy');
    await expect(begunScene(space, Buffer.from(text, 'latin1'), 'a.sundew')).rejects.toMatchObject({
      status: 422,
      message: 'The scene file lacks the picture of its sky.',
    });
    expect(other.width).toBe(130);
  });
});

describe('beginScene', () => {
  it.each(['jpeg', 'png', 'webp'] as const)('takes a %s', async (format) => {
    const id = await begin(await pictureBytes(96, 64, format), 'ferry_steps-2.jpg');
    const { scene } = openScene(space, id);
    expect(scene.title).toBe('Ferry steps 2');
    expect(scene.plate).toMatchObject({ width: 96, height: 64 });
  });

  it('respects the orientation, and the lens that the photo names', async () => {
    const turned = await sharp(await pictureBytes(96, 64))
      .withExif({ IFD0: { Orientation: '6' }, IFD2: { FocalLengthIn35mmFilm: '28' } })
      .withMetadata({ orientation: 6 })
      .toBuffer();
    const { scene } = openScene(space, await begin(turned));
    expect(scene.plate).toMatchObject({ width: 64, height: 96 });
    expect(scene.plan.lens).toBe(28);
    const codes = await createPlateReader(space.dataDir).read(scene.plate.asset, wholeRegion(64, 96));
    expect(codes[3 * 60]).toBeGreaterThan(codes[3 * 4]);
  });

  it('leaves no file open, whatever it was given', async () => {
    const open = () => readdir('/proc/self/fd').then((files) => files.length);
    const path = join(space.dataDir, 'odd');
    const before = await open();
    for (const bytes of [Buffer.from('ffd8ffe0deadbeef0011', 'hex'), Buffer.from('hello')]) {
      await writeFile(path, bytes);
      for (let n = 0; n < 20; n++) expect(await readLens(path)).toBeUndefined();
    }
    expect(await open()).toBeLessThan(before + 10);
  });

  it('stores the same photo once', async () => {
    const bytes = await pictureBytes(80, 80);
    const [first, second] = [await begin(bytes), await begin(bytes)];
    expect(openScene(space, first).scene.plate.asset).toBe(openScene(space, second).scene.plate.asset);
  });

  /** The first half of a file. */
  const cut = (bytes: Uint8Array) => bytes.subarray(0, bytes.length >> 1);
  /** A JPEG whose marker of its end comes in the middle of its data. */
  const endsEarly = (bytes: Uint8Array) =>
    Buffer.concat([bytes.subarray(0, Math.floor(0.7 * bytes.length)), Buffer.from([0xff, 0xd9])]);
  const text = new TextEncoder().encode('this is no picture, whatever its name says');
  it.each([
    ['a text file named .jpg', () => text, 415, 'not a picture'],
    ['a file of no bytes', () => new Uint8Array(0), 400, 'empty'],
    ['a picture of one pixel', () => pictureBytes(1, 1), 422, 'at least 64'],
    ['a picture of 1 x 5000', () => pictureBytes(1, 5000, 'png'), 422, 'at least 64'],
    ['a claim of 20000 x 20000', () => claimingPng(20000, 20000), 413, '400 megapixels'],
    ['a JPEG cut short', async () => (await pictureBytes(400, 300)).subarray(0, 900), 422, 'cut short'],
    [
      'a JPEG that ends before its rows do',
      async () => endsEarly(await pictureBytes(400, 300)),
      422,
      'last rows',
    ],
    ['a PNG cut short', async () => cut(await pictureBytes(400, 300, 'png')), 422, 'cut short'],
    ['a WebP cut short', async () => cut(await pictureBytes(400, 300, 'webp')), 422, 'cut short'],
    ['a ZIP that is no scene', () => Buffer.from('504b0506' + '00'.repeat(18), 'hex'), 415, 'not a picture'],
    ['a broken scene file', () => Buffer.from('504b0304' + 'ff'.repeat(60), 'hex'), 422, 'damaged'],
  ])('says what is wrong with %s, and keeps nothing of it', async (_name, bytes, status, reason) => {
    const before = listScenes(space).length;
    await expect(begin(await bytes())).rejects.toMatchObject({
      status,
      message: expect.stringContaining(reason) as string,
    });
    expect(listScenes(space)).toHaveLength(before);
    expect(await readdir(join(space.dataDir, 'incoming'))).toEqual([]);
  });
});

/** The middle of a plate as codes of sRGB, 0 to 1. */
async function middleOf(bytes: Uint8Array): Promise<number[]> {
  const { asset, width, height } = openScene(space, await begin(bytes)).scene.plate;
  // Read as after a restart, from what is on the disk.
  const plates = createPlateReader(space.dataDir);
  const at = { left: width >> 1, top: height >> 1, width: 1, height: 1 };
  return [...(await plates.read(asset, { fullWidth: width, fullHeight: height, ...at }))].map(
    (c) => c / 65535,
  );
}

const near = (codes: number[], expected: readonly number[], digits: number) =>
  codes.forEach((code, c) => expect(code).toBeCloseTo(expected[c], digits));

const SIZE = { width: 96, height: 64 };

/** A flat picture of 16-bit codes. */
const flat16 = (codes: readonly number[]) =>
  sharp(
    Uint16Array.from({ length: 96 * 64 * codes.length }, (_, i) => codes[i % codes.length]),
    {
      raw: { ...SIZE, channels: codes.length as 1 | 3 | 4 },
    },
  ).toColourspace(codes.length < 3 ? 'grey16' : 'rgb16');

const flat8 = (background: { r: number; g: number; b: number; alpha?: number }, channels: 3 | 4 = 3) =>
  sharp({ create: { ...SIZE, channels, background } });

describe('formats', () => {
  const tiff = { compression: 'deflate' } as const;
  const fine = [30001, 20002, 10003];
  const coarse = { r: 120, g: 80, b: 40 };
  const shown = [120 / 255, 80 / 255, 40 / 255];

  it('keep 16 bits to the end, in TIFF and PNG', async () => {
    for (const picture of [flat16(fine).tiff(tiff), flat16(fine).png()]) {
      near(
        await middleOf(await picture.toBuffer()),
        fine.map((code) => code / 65535),
        5,
      );
    }
  });

  it('take TIFF and AVIF of 8 bits, and AVIF of 10', async () => {
    near(await middleOf(await flat8(coarse).tiff(tiff).toBuffer()), shown, 3);
    near(await middleOf(await flat8(coarse).avif({ quality: 100 }).toBuffer()), shown, 1.9);
    near(
      await middleOf(await flat16(fine).avif({ quality: 100, bitdepth: 10 }).toBuffer()),
      fine.map((code) => code / 65535),
      1.9,
    );
  });

  it('take TIFF with an alpha channel over black, and TIFF of 32-bit floats as linear light', async () => {
    near(
      await middleOf(
        await flat8({ ...coarse, alpha: 0.5 }, 4)
          .tiff(tiff)
          .toBuffer(),
      ),
      shown.map((c) => c / 2),
      2,
    );
    const float = await flat8({ r: 255, g: 188, b: 0 })
      .toColourspace('scrgb')
      .tiff({ ...tiff, predictor: 'none' })
      .toBuffer();
    expect((await sharp(float).metadata()).depth).toBe('float');
    near(await middleOf(float), [1, 188 / 255, 0], 2);
  });

  it('take grey and 1-bit PNG, CMYK JPEG, and the first picture of an animated WebP', async () => {
    const grey = await flat8({ r: 90, g: 90, b: 90 }).toColourspace('b-w').png().toBuffer();
    expect((await sharp(grey).metadata()).channels).toBe(1);
    near(await middleOf(grey), [90 / 255, 90 / 255, 90 / 255], 2);
    const white = await flat8({ r: 255, g: 255, b: 255 }).png({ palette: true, colours: 2 }).toBuffer();
    near(await middleOf(white), [1, 1, 1], 2);
    const cmyk = await flat8(coarse).toColourspace('cmyk').jpeg({ quality: 100 }).toBuffer();
    expect((await sharp(cmyk).metadata()).space).toBe('cmyk');
    const [r, g, b] = await middleOf(cmyk);
    expect(r).toBeGreaterThan(g);
    expect(g).toBeGreaterThan(b);
    const frames = await Promise.all(
      [coarse, { r: 0, g: 0, b: 255 }].map((color) => flat8(color).png().toBuffer()),
    );
    const animated = await sharp(frames, { join: { animated: true } })
      .webp({ lossless: true })
      .toBuffer();
    expect((await sharp(animated).metadata()).pages).toBe(2);
    near(await middleOf(animated), shown, 2);
  });

  it.each([
    // Linear sRGB of a colour of each profile, by the published matrices of these primaries.
    [
      'wide red',
      2.2,
      [
        [1.2249, -0.2247, 0],
        [-0.042, 1.0419, 0],
        [-0.0197, -0.0786, 1.0979],
      ],
    ],
    [
      'wide green',
      2.2,
      [
        [1.3984, -0.3984, 0],
        [0, 1, 0],
        [0, -0.0429, 1.0429],
      ],
    ],
  ] as const)(
    'land colours of a %s profile where they belong, 8 and 16 bits',
    async (name, gamma, matrix) => {
      const codes = [0.62, 0.5, 0.4];
      const linear = codes.map((code) => code ** gamma);
      const expected = matrix.map((row) =>
        srgb.encode(row.reduce<number>((sum, m, i) => sum + m * linear[i], 0)),
      );
      const profile = matrixProfile(name, COLORANTS[name], gamma);
      const fine = await flat16(codes.map((code) => Math.round(65535 * code)))
        .png()
        .toBuffer();
      near(await middleOf(await pngWithProfile(fine, profile)), expected, 2.6);
      const [r, g, b] = codes.map((code) => Math.round(255 * code));
      const rough = await flat8({ r, g, b }).png().toBuffer();
      near(await middleOf(await pngWithProfile(rough, profile)), expected, 2.2);
    },
  );

  it('follow a profile of tables, 8 and 16 bits', async () => {
    const profile = tablesProfile(0.5);
    const rough = await flat8({ r: 255, g: 255, b: 0 }).png().toBuffer();
    const fine = await flat16([65535, 65535, 0]).png().toBuffer();
    for (const png of [rough, fine]) {
      // Yellow of such a profile is half as bright as its red and its green.
      near(await middleOf(await pngWithProfile(png, profile)), [0.5, 0.5, 0].map(srgb.encode), 1.8);
    }
    expect(await readColorProfile({ profile, codes: 256 })).toEqual({ colors: 'tables' });
  });

  it('follow a profile of grey', async () => {
    const profile = matrixProfile('grey', COLORANTS['wide red'], 1);
    profile.write('GRAY', 16, 'latin1');
    // Its curve is that of the tag of grey, where red's colorant was.
    profile.write('kTRC', 128 + 4 + 12 * 6, 'latin1');
    const grey = await flat8({ r: 128, g: 128, b: 128 }).toColourspace('b-w').png().toBuffer();
    near(await middleOf(await pngWithProfile(grey, profile)), Array(3).fill(srgb.encode(128 / 255)), 2);
  });

  it('take a broken profile for none, and say so', async () => {
    const profile = join(space.dataDir, 'wide.icc');
    await writeFile(profile, matrixProfile('wide', COLORANTS['wide red'], 2.2));
    const photo = await flat8(coarse).jpeg({ quality: 100 }).withIccProfile(profile).toBuffer();
    // What lies behind the profile's signature is its table of tags.
    const signature = photo.indexOf('acsp');
    photo.fill(0xff, signature + 92, signature + 200);
    const { id, note } = await beginScene(space, await receiveBytes(space, photo), 'a.jpg');
    expect(note).toContain('colour profile is broken');
    const { asset } = openScene(space, id).scene.plate;
    const codes = await space.plates.read(asset, wholeRegion(96, 64));
    const [r, g, b] = await sharp(photo, { ignoreIcc: true }).raw().toBuffer();
    expect([...codes.subarray(0, 3)]).toEqual([r, g, b].map((code) => 257 * code));
  });

  it('develop a raw file that holds no thumbnail, turned upright', async () => {
    const light = [0.5, 0.25, 0.1] as const;
    near(await middleOf(flatDng(320, 200, () => light)), light.map(srgb.encode), 2);
    const turned = flatDng(320, 200, (x) => (x < 160 ? [0.5, 0.5, 0.5] : [0.1, 0.1, 0.1]), 6);
    const { plate } = openScene(space, await begin(turned, 'lane.dng')).scene;
    expect(plate).toMatchObject({ width: 200, height: 320 });
    const column = await createPlateReader(space.dataDir).read(plate.asset, wholeRegion(200, 320));
    expect(column[3 * (20 * 200 + 100)]).toBeGreaterThan(column[3 * (300 * 200 + 100)]);
  });

  it('say of a raw file that is cut short that it cannot be read', async () => {
    await expect(begin(flatDng(320, 200, () => [0.5, 0.5, 0.5]).subarray(0, 4000))).rejects.toMatchObject({
      status: expect.toSatisfy((status: number) => status === 415 || status === 422) as number,
    });
  });
});

describe('receiveFile', () => {
  it('stops at the limit and leaves nothing behind', async () => {
    const endless = Readable.from([new Uint8Array(600), new Uint8Array(600)]);
    await expect(receiveFile(space.dataDir, endless, 1000)).rejects.toMatchObject({ status: 413 });
    expect(await readdir(join(space.dataDir, 'incoming'))).toEqual([]);
  });

  it('says that the disk is full, and leaves nothing behind', async () => {
    const full = Object.assign(new Error('write'), { code: 'ENOSPC' });
    const stream = Readable.from(
      (async function* () {
        yield new Uint8Array(10);
        await Promise.reject(full);
      })(),
    );
    await expect(receiveFile(space.dataDir, stream, 1000)).rejects.toMatchObject({
      status: 507,
      message: expect.stringContaining('disk is full') as string,
    });
    expect(await readdir(join(space.dataDir, 'incoming'))).toEqual([]);
  });

  it('hears out who sends, whatever went wrong, so that the answer is heard', async () => {
    let sent = 0;
    const chunks = (async function* () {
      for (; sent < 3; sent++) yield await Promise.resolve(new Uint8Array(600));
    })();
    await expect(receiveFile(space.dataDir, chunks, 1000)).rejects.toMatchObject({ status: 413 });
    expect(sent).toBe(3);
  });

  it('ends a stream that goes on and on', async () => {
    let ended = false;
    const endless = (async function* () {
      try {
        for (;;) yield await Promise.resolve(new Uint8Array(600));
      } finally {
        ended = true;
      }
    })();
    await expect(receiveFile(space.dataDir, endless, 1000)).rejects.toMatchObject({ status: 413 });
    expect(ended).toBe(true);
  });

  it('trusts no name of an asset', () => {
    expect(() => assetPath(space.dataDir, '../../etc/passwd')).toThrow('not the name');
  });
});

describe('createPlateReader', () => {
  it('gives 8-bit codes exactly at full size and the linear mean below', async () => {
    const rgb = Uint8Array.from({ length: 3 * 64 * 64 }, (_, i) => ((i / 3) & 1 ? 255 : 0));
    const png = await sharp(rgb, { raw: { width: 64, height: 64, channels: 3 } })
      .png()
      .toBuffer();
    const { asset } = openScene(space, await begin(png)).scene.plate;
    const plates = createPlateReader(space.dataDir);
    const full = await plates.read(asset, wholeRegion(64, 64));
    expect([full[0], full[3]]).toEqual([0, 65535]);
    // Half black and half white in light is code 0.7354 of sRGB.
    const half = await plates.read(asset, wholeRegion(32, 64));
    expect(half[0] / 65535).toBeCloseTo(0.7354, 3);
    expect(await createPlateReader(space.dataDir).read(asset, wholeRegion(32, 64))).toEqual(half);
    const part = await plates.read(asset, { ...wholeRegion(32, 64), left: 3, top: 9, width: 5, height: 2 });
    expect([...part.subarray(0, 15)]).toEqual([...half.subarray(3 * (9 * 32 + 3), 3 * (9 * 32 + 8))]);
    await expect(plates.read(asset, wholeRegion(65, 64))).rejects.toMatchObject({ status: 400 });
  });
});

describe('scene file', () => {
  it('carries a scene to another place, plate and all', async () => {
    const open = openScene(space, await begin(await pictureBytes(100, 70), 'steps.jpg'));
    const other = await temporaryWorkspace();
    const file = await sceneFileBytes(space, open.scene);
    const copy = openScene(other.space, await begunScene(other.space, file, 'steps.sundew'));
    expect(copy.scene).toEqual(open.scene);
    const { asset } = open.scene.plate;
    const plate = (dataDir: string) => readFile(assetPath(dataDir, asset));
    expect(Buffer.compare(await plate(space.dataDir), await plate(other.space.dataDir))).toBe(0);
    expect(await readdir(join(other.space.dataDir, 'incoming'))).toEqual([]);
    await other.remove();
  });
});

it('makes a name for people of any file name', () => {
  expect(titleFrom('IMG_0042.JPG')).toBe('IMG 0042');
  expect(titleFrom('../../etc/passwd')).toBe('Passwd');
  expect(titleFrom('')).toBe('Untitled');
  expect(titleFrom('x'.repeat(300)).length).toBe(80);
  // A first letter that becomes two.
  expect(titleFrom('ß'.repeat(80))).toBe(`SS${'ß'.repeat(78)}`);
  expect(encodeURIComponent(titleFrom('𝒜'.repeat(60)))).toMatch(/^(%F0%9D%92%9C)+$/);
});
