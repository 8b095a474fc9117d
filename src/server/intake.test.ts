import { readdir, readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { Readable } from 'node:stream';
import sharp from 'sharp';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { wholeRegion } from '@/core/plane/region';
import { claimingPng, pictureBytes, receiveBytes, temporaryWorkspace } from '../../test/workspace';
import { assetPath, receiveFile } from './asset-store';
import { beginScene, titleFrom } from './intake';
import { createPlateReader } from './plate-codes';
import { readSceneFile, writeSceneFile } from './scene-file';
import { listScenes, openScene } from './scene-repository';
import type { Workspace } from './workspace';

let space: Workspace;
let remove: () => Promise<void>;
beforeAll(async () => ({ space, remove } = await temporaryWorkspace()));
afterAll(() => remove());

const begin = async (bytes: Uint8Array, name = 'a.jpg') =>
  beginScene(space, await receiveBytes(space, bytes), name);

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

  it('stores the same photo once', async () => {
    const bytes = await pictureBytes(80, 80);
    const [first, second] = [await begin(bytes), await begin(bytes)];
    expect(openScene(space, first).scene.plate.asset).toBe(openScene(space, second).scene.plate.asset);
  });

  const text = new TextEncoder().encode('this is no picture, whatever its name says');
  it.each([
    ['a text file named .jpg', () => text, 415, 'not a picture'],
    ['a file of no bytes', () => new Uint8Array(0), 400, 'empty'],
    ['a picture of one pixel', () => pictureBytes(1, 1), 422, 'at least 64'],
    ['a picture of 1 x 5000', () => pictureBytes(1, 5000, 'png'), 422, 'at least 64'],
    ['a claim of 20000 x 20000', () => claimingPng(20000, 20000), 413, '400 megapixels'],
    ['a JPEG cut short', async () => (await pictureBytes(400, 300)).subarray(0, 900), 422, 'damaged'],
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
    const id = await begin(await pictureBytes(100, 70), 'steps.jpg');
    const open = openScene(space, id);
    const file = await writeSceneFile(space.dataDir, open);
    const { scene, plate } = readSceneFile(file);
    expect(scene).toEqual(open.scene);
    expect(Buffer.compare(plate, await readFile(assetPath(space.dataDir, open.scene.plate.asset)))).toBe(0);
    const copy = openScene(space, await begin(file, 'steps.sundew'));
    expect(copy.scene).toEqual(open.scene);
  });
});

it('makes a name for people of any file name', () => {
  expect(titleFrom('IMG_0042.JPG')).toBe('IMG 0042');
  expect(titleFrom('../../etc/passwd')).toBe('Passwd');
  expect(titleFrom('')).toBe('Untitled');
  expect(titleFrom('x'.repeat(300)).length).toBe(80);
});
