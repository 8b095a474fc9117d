import { readdir, readFile } from 'node:fs/promises';
import { join } from 'node:path';
import sharp, { type Sharp } from 'sharp';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { wholeRegion } from '@/core/plane/region';
import { pngWithProfile } from '../../../test/icc';
import { testPlaced } from '../../../test/placed';
import {
  begunScene,
  pictureBytes,
  receiveBytes,
  sceneFileBytes,
  temporaryWorkspace,
} from '../../../test/workspace';
import { assetPath } from '../assets/asset-store';
import { loadCoverage } from '../assets/coverage-store';
import type { Workspace } from '../assets/workspace';
import { profileOf } from '../output/colour-profile';
import { openScene } from './scene-repository';
import { takePlaced } from './take-placed';

let space: Workspace;
let remove: () => Promise<void>;
beforeAll(async () => ({ space, remove } = await temporaryWorkspace()));
afterAll(() => remove());

const RED = { r: 200, g: 40, b: 20 };

/** A red square of 80 pixels in a clear picture of 200 x 300. */
const redSquare = () =>
  sharp({ create: { width: 200, height: 300, channels: 4, background: { ...RED, alpha: 0 } } }).composite([
    {
      input: { create: { width: 80, height: 80, channels: 4, background: { ...RED, alpha: 1 } } },
      ...{ left: 60, top: 180 },
    },
  ]);

/** A PNG of which nothing is there. */
const clear = (width: number, height: number) =>
  sharp({ create: { width, height, channels: 4, background: { ...RED, alpha: 0 } } })
    .png()
    .toBuffer();

const take = async (bytes: Uint8Array) => takePlaced(space, await receiveBytes(space, bytes));

describe('a picture to be placed', () => {
  it.each([
    ['PNG', (picture: Sharp) => picture.png()],
    ['WebP', (picture: Sharp) => picture.webp({ lossless: true })],
    ['TIFF', (picture: Sharp) => picture.tiff({ compression: 'none' })],
    ['PNG of 16 bits', (picture: Sharp) => picture.toColourspace('rgb16').png()],
  ])('that is clear in part is cut down to what is there: %s', async (_, as) => {
    const taken = await take(await as(redSquare()).toBuffer());
    expect([taken.width, taken.height]).toEqual([86, 86]);
    expect((taken.body.right - taken.body.left) * 86).toBeCloseTo(80);
    expect((taken.body.bottom - taken.body.top) * 86).toBeCloseTo(80);
    const coverage = await loadCoverage(space.dataDir, taken.alpha!);
    expect([coverage.data[0], coverage.data[43 * 86 + 43]]).toEqual([0, 255]);
    // Its colour goes on where it is clear.
    const codes = await space.plates.read(taken.asset, wholeRegion(86, 86));
    expect(codes[0] / 257).toBeCloseTo(RED.r, -1);
    expect(codes[2] / 257).toBeCloseTo(RED.b, -1);
  });

  it.each(['srgb', 'p3'] as const)('of 16 bits keeps its colours by a profile of %s', async (colours) => {
    const rgba = new Uint16Array(4 * 200 * 200);
    for (let i = 0; i < rgba.length; i += 4) rgba.set([52000, 26000, 12000, i % 800 < 400 ? 0 : 65535], i);
    const png = await sharp(rgba, { raw: { width: 200, height: 200, channels: 4 } })
      .toColourspace('rgb16')
      .png()
      .toBuffer();
    const taken = await take(await pngWithProfile(png, Buffer.from(await profileOf(colours))));
    const codes = await space.plates.read(taken.asset, wholeRegion(taken.width, taken.height));
    // Of Display P3 more than sRGB's red would be needed, by the primaries and curve of both.
    const wanted = colours === 'srgb' ? [52000, 26000, 12000] : [55873, 24077, 6078];
    const at = 3 * (50 * taken.width + Math.floor(taken.width / 2));
    wanted.forEach((code, c) => expect(Math.abs(codes[at + c] - code) / 257).toBeLessThan(6));
  });

  it('with colours multiplied by their coverage is taken as it was meant, and says so', async () => {
    const soft = (multiplied: boolean) => {
      const data = new Uint8Array(4 * 200 * 200);
      for (let i = 0; i < 200 * 200; i++) {
        const away = Math.hypot((i % 200) - 100, Math.floor(i / 200) - 100);
        const alpha = Math.round(255 * Math.min(1, Math.max(0, (90 - away) / 40)));
        const by = multiplied ? alpha / 255 : 1;
        data.set([...[200, 120, 60].map((value) => Math.round(value * by)), alpha], 4 * i);
      }
      return sharp(data, { raw: { width: 200, height: 200, channels: 4 } })
        .png()
        .toBuffer();
    };
    const [meant, multiplied] = [await take(await soft(false)), await take(await soft(true))];
    expect(meant.note).toBeUndefined();
    expect(multiplied.note).toContain('multiplied by their coverage');
    const codes = async ({ asset, width, height }: typeof meant) =>
      space.plates.read(asset, wholeRegion(width, height));
    const [as, was] = [await codes(multiplied), await codes(meant)];
    const { width, height } = meant;
    // Half-way in the soft edge, and in the middle.
    for (const x of [30, width >> 1]) {
      const at = 3 * ((height >> 1) * width + x);
      for (let c = at; c < at + 3; c++) expect(Math.abs(as[c] - was[c]) / 257).toBeLessThan(4);
    }
  });

  it('that is a photo is taken as it is', async () => {
    const taken = await take(await pictureBytes(120, 80));
    expect(taken).toMatchObject({ width: 120, height: 80, body: { left: 0, right: 1 } });
    expect(taken.alpha).toBeUndefined();
    const opaque = sharp({
      create: { width: 90, height: 70, channels: 4, background: { ...RED, alpha: 1 } },
    });
    expect((await take(await opaque.png().toBuffer())).alpha).toBeUndefined();
  });

  it('of inks, moving, or of a strip, is read as far as it is a picture', async () => {
    const cmyk = await sharp(await pictureBytes(120, 80))
      .toColourspace('cmyk')
      .jpeg()
      .toBuffer();
    expect(await take(cmyk)).toMatchObject({ width: 120, height: 80 });
    const moving = await sharp([await redSquare().png().toBuffer(), await redSquare().png().toBuffer()], {
      join: { animated: true },
    })
      .webp({ loop: 0 })
      .toBuffer();
    expect(await take(moving)).toMatchObject({ width: 86 });
    await expect(clear(4, 300).then(take)).rejects.toThrow('needs at least 64 pixels each way');
  });

  it.each([
    ['nothing of it is there', () => clear(160, 190)],
    ['damaged or cut short', async () => (await redSquare().png().toBuffer()).subarray(0, 300)],
    ['not a picture that Sundew reads', () => Promise.resolve(new TextEncoder().encode('no picture at all'))],
  ])('is refused in clear words, and leaves nothing behind: %s', async (words, bytes) => {
    await expect(take(await bytes())).rejects.toThrow(words);
    expect(await readdir(join(space.dataDir, 'incoming'))).toEqual([]);
  });

  it('goes along in the scene’s file, and comes in again; a file without it is refused', async () => {
    const { alpha, ...square } = await take(await redSquare().png().toBuffer());
    const { scene } = openScene(space, await begunScene(space, await pictureBytes(), 'a.jpg'));
    const { asset, width, height, body } = square;
    const placed = [
      testPlaced('p', { asset, width, height, body, alpha }),
      testPlaced('q', { asset, width, height, body }),
    ];
    const file = await sceneFileBytes(space, { ...scene, placed });
    const there = await temporaryWorkspace();
    const again = openScene(there.space, await begunScene(there.space, file, 'a.sundew')).scene;
    expect(again.placed).toEqual(JSON.parse(JSON.stringify(placed)));
    const kept = await readFile(assetPath(there.space.dataDir, asset));
    expect(kept.equals(await readFile(assetPath(space.dataDir, asset)))).toBe(true);
    await there.remove();
    const name = Buffer.from(`pictures/${asset}`);
    const without = Buffer.from(
      file.toString('latin1').replaceAll(name.toString('latin1'), `pictures/${'0'.repeat(64)}`),
      'latin1',
    );
    await expect(begunScene(space, without, 'a.sundew')).rejects.toThrow(
      'lacks a picture that is placed in it',
    );
  });
});
