import { readdir } from 'node:fs/promises';
import { join } from 'node:path';
import { deflateRawSync } from 'node:zlib';
import { unzipSync, zipSync } from 'fflate';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { begunScene, sceneFileBytes, temporaryWorkspace } from '../../../test/workspace';
import { LIMITS } from '../http/limits';
import { listScenes, openScene } from './scene-repository';
import type { Workspace } from '../assets/workspace';

let space: Workspace;
let remove: () => Promise<void>;
let sound: Record<string, Uint8Array>;
beforeAll(async () => {
  ({ space, remove } = await temporaryWorkspace());
  const { scene } = openScene(space, await begunScene(space));
  sound = unzipSync(await sceneFileBytes(space, scene));
});
afterAll(() => remove());

interface Entry {
  name: string;
  data: Buffer;
  /** What the file says that it unpacks to, bytes. */
  size: number;
}

/** A ZIP written by hand, which may lie. `count` is what its end says of how many entries it has. */
function lyingZip(entries: Entry[], count = entries.length): Buffer {
  const head = (signature: number, central: boolean, { name, data, size }: Entry, at = 0) => {
    const bytes = Buffer.alloc(central ? 46 : 30);
    const from = central ? 6 : 4;
    bytes.writeUInt32LE(signature, 0);
    bytes.writeUInt16LE(20, from);
    bytes.writeUInt16LE(8, from + 4);
    bytes.writeUInt32LE(data.length, from + 14);
    bytes.writeUInt32LE(size, from + 18);
    bytes.writeUInt16LE(name.length, from + 22);
    if (central) bytes.writeUInt32LE(at, 42);
    return Buffer.concat([bytes, Buffer.from(name)]);
  };
  const parts: Buffer[] = [];
  const directory: Buffer[] = [];
  let at = 0;
  for (const entry of entries) {
    directory.push(head(0x02014b50, true, entry, at));
    const local = Buffer.concat([head(0x04034b50, false, entry), entry.data]);
    parts.push(local);
    at += local.length;
  }
  const central = Buffer.concat(directory);
  const end = Buffer.alloc(22);
  end.writeUInt32LE(0x06054b50, 0);
  end.writeUInt16LE(Math.min(count, 0xffff), 8);
  end.writeUInt16LE(Math.min(count, 0xffff), 10);
  end.writeUInt32LE(central.length, 12);
  end.writeUInt32LE(at, 16);
  return Buffer.concat([...parts, central, end]);
}

const packed = (name: string, bytes: Uint8Array, size = bytes.length): Entry => ({
  name,
  data: deflateRawSync(bytes),
  size,
});

/** A small file whose 64-bit end says that it has four thousand million entries. */
function lyingCount(): Buffer {
  const zip = lyingZip([packed('scene.json', Buffer.from('{}'))]);
  const [body, end] = [zip.subarray(0, -22), Buffer.from(zip.subarray(-22))];
  const long = Buffer.alloc(56 + 20);
  long.writeUInt32LE(0x06064b50, 0);
  long.writeBigUInt64LE(44n, 4);
  long.writeBigUInt64LE(4_000_000_000n, 24);
  long.writeBigUInt64LE(4_000_000_000n, 32);
  long.writeBigUInt64LE(46n + 10n, 40);
  long.writeUInt32LE(0x07064b50, 56);
  long.writeBigUInt64LE(BigInt(body.length), 64);
  long.writeUInt32LE(1, 72);
  end.writeUInt16LE(0xffff, 8);
  end.writeUInt16LE(0xffff, 10);
  end.writeUInt32LE(0xffffffff, 16);
  return Buffer.concat([body, long, end]);
}

const brackets = (n: number) => Buffer.from('['.repeat(n) + ']'.repeat(n));

it.each<[string, () => Uint8Array, RegExp]>([
  ['a count that lies', lyingCount, /damaged|more than/],
  [
    'thousands of plates',
    () => lyingZip(Array.from({ length: 6000 }, () => packed('plate', Buffer.from('x')))),
    /more than a scene can be/,
  ],
  [
    'one plate twice',
    () => lyingZip([packed('plate', sound.plate), packed('plate', sound.plate)]),
    /holds plate twice/,
  ],
  [
    'a gigabyte said to be a byte',
    () => lyingZip([packed('plate', Buffer.alloc(2 ** 26), 1), packed('scene.json', sound['scene.json'])]),
    /damaged/,
  ],
  [
    'far more than it was packed into',
    () => lyingZip([packed('scene.json', Buffer.alloc(LIMITS.documentBytes, 32))]),
    /more than a scene can be/,
  ],
  [
    'a document larger than one may be',
    () => lyingZip([packed('scene.json', Buffer.alloc(LIMITS.documentBytes + 1, 32))]),
    /more than a scene can be/,
  ],
  [
    'a document of brackets',
    () => zipSync({ plate: sound.plate, 'scene.json': [brackets(5_000_000), { level: 0 }] }),
    /no readable scene/,
  ],
  ['a scene without its plate', () => zipSync({ 'scene.json': sound['scene.json'] }), /plate is missing/],
  [
    'a way out of its folder',
    () => zipSync({ '../scene.json': sound['scene.json'], plate: sound.plate }),
    /damaged|scene.json/,
  ],
])('refuses %s at once, and keeps nothing of it', async (_name, bytes, reason) => {
  const before = listScenes(space).length;
  const from = performance.now();
  const file = bytes();
  await expect(begunScene(space, file, 'x.sundew')).rejects.toMatchObject({
    status: 422,
    message: expect.stringMatching(reason) as string,
  });
  // A limit of patience, no measure of speed: what hung did so for minutes.
  expect(performance.now() - from).toBeLessThan(60_000);
  expect(listScenes(space)).toHaveLength(before);
  expect(await readdir(join(space.dataDir, 'incoming'))).toEqual([]);
});

it('passes over what it does not know', async () => {
  const file = zipSync({ ...sound, 'notes.txt': Buffer.from('hello'), 'mattes/': new Uint8Array() });
  expect(await begunScene(space, file, 'x.sundew')).toBeTruthy();
});
