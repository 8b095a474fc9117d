import { readFile, writeFile } from 'node:fs/promises';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { begunScene, pictureBytes, receiveBytes, temporaryWorkspace } from '../../../test/workspace';
import { findAsset } from './asset-kinds';
import { assetPath, keepFile, writeWhole } from './asset-store';
import { takeCoverage } from './coverage-store';
import { openScene } from '../scenes/scene-repository';
import type { Workspace } from './workspace';

let space: Workspace;
let remove: () => Promise<void>;
beforeAll(async () => ({ space, remove } = await temporaryWorkspace()));
afterAll(() => remove());

/** A file that takes so many bytes at a time, and so many in all. */
function slowFile(atOnce: number, room: number) {
  const taken: number[] = [];
  return {
    taken,
    write: (bytes: Uint8Array, at: number, length: number) => {
      const bytesWritten = Math.min(atOnce, length, room - taken.length);
      taken.push(...bytes.subarray(at, at + bytesWritten));
      return Promise.resolve({ bytesWritten, buffer: bytes });
    },
  };
}

describe('writeWhole', () => {
  const bytes = Uint8Array.from({ length: 1000 }, (_, i) => i);

  it('writes on until all is written', async () => {
    const file = slowFile(7, Infinity);
    await writeWhole(file as unknown as Parameters<typeof writeWhole>[0], bytes);
    expect(file.taken).toEqual([...bytes]);
  });

  it('takes a disk that takes no more for full', async () => {
    const file = slowFile(300, 700) as unknown as Parameters<typeof writeWhole>[0];
    await expect(writeWhole(file, bytes)).rejects.toMatchObject({ status: 507 });
  });
});

describe('keepFile', () => {
  const keep = async (bytes: Uint8Array) => {
    const received = await receiveBytes(space, bytes);
    await keepFile(space.dataDir, received);
    return assetPath(space.dataDir, received.hash);
  };

  it.each([
    ['cut', (whole: Uint8Array) => whole.subarray(0, 100)],
    [
      'of the right size and wrong',
      (whole: Uint8Array) => whole.map((byte, i) => (i === 200 ? byte ^ 1 : byte)),
    ],
  ])('puts the whole file in the place of one that is %s', async (_name, spoil) => {
    const bytes = await pictureBytes(120, 90);
    const path = await keep(bytes);
    await writeFile(path, spoil(bytes));
    expect(await keep(bytes)).toBe(path);
    expect(Buffer.compare(await readFile(path), bytes)).toBe(0);
  });
});

it('lets one file be a photo and a matte, whichever it was first', async () => {
  const { default: sharp } = await import('sharp');
  const grey = (shade: number) =>
    sharp({ create: { width: 96, height: 80, channels: 3, background: { r: shade, g: shade, b: shade } } })
      .toColourspace('b-w')
      .png()
      .toBuffer();
  const [first, second] = [await grey(90), await grey(91)];
  const { asset } = await takeCoverage(space, await receiveBytes(space, first));
  expect(findAsset(space.db, 'plate', asset)).toBeUndefined();
  const plate = openScene(space, await begunScene(space, first, 'a.png')).scene.plate;
  expect(plate.asset).toBe(asset);
  expect(openScene(space, await begunScene(space, second, 'b.png')).scene.plate.width).toBe(96);
  const other = await takeCoverage(space, await receiveBytes(space, second));
  for (const hash of [asset, other.asset])
    for (const kind of ['plate', 'coverage'] as const) expect(findAsset(space.db, kind, hash)).toBeDefined();
  expect(findAsset(space.db, 'lut', asset)).toBeUndefined();
});
