import { createHash, randomUUID } from 'node:crypto';
import { createReadStream, existsSync, mkdirSync } from 'node:fs';
import { open, rename, rm, stat } from 'node:fs/promises';
import { join } from 'node:path';
import { Readable } from 'node:stream';
import { AppError, diskFull } from './app-error';

const HASH = /^[0-9a-f]{64}$/;

/** Path of an asset. Its name is checked, so that no path can be smuggled in. */
export function assetPath(dataDir: string, hash: string): string {
  if (!HASH.test(hash)) throw new AppError(400, 'bad-asset', 'That is not the name of a stored file.');
  return join(dataDir, 'assets', hash.slice(0, 2), hash);
}

/** A file received whole, not yet part of the store. */
export interface ReceivedFile {
  path: string;
  hash: string;
  bytes: number;
}

/**
 * Receives a stream into a temporary file of the data folder, counting and hashing on the way. Throws 413 once it is
 * larger than `mostBytes`, 507 when the disk is full; nothing is left behind then.
 */
export async function receiveFile(
  dataDir: string,
  stream: AsyncIterable<Uint8Array>,
  mostBytes: number,
): Promise<ReceivedFile> {
  const folder = join(dataDir, 'incoming');
  mkdirSync(folder, { recursive: true });
  const path = join(folder, randomUUID());
  const hash = createHash('sha256');
  let bytes = 0;
  const file = await open(path, 'wx');
  try {
    for await (const chunk of stream) {
      bytes += chunk.byteLength;
      if (bytes > mostBytes) {
        const most = Math.round(mostBytes / 2 ** 20);
        throw new AppError(
          413,
          'too-large',
          `The file is larger than ${most} MB. Save it smaller and try again.`,
        );
      }
      hash.update(chunk);
      await file.write(chunk);
    }
    await file.sync();
    await file.close();
    return { path, hash: hash.digest('hex'), bytes };
  } catch (error) {
    await file.close().catch(() => {});
    await rm(path, { force: true });
    if (diskFull(error)) {
      throw new AppError(507, 'disk-full', 'The disk is full. Free some space and try again.');
    }
    throw error;
  }
}

/** Makes a received file an asset. The same content twice is stored once. */
export async function keepFile(dataDir: string, received: ReceivedFile): Promise<void> {
  const target = assetPath(dataDir, received.hash);
  if (existsSync(target)) return rm(received.path, { force: true });
  mkdirSync(join(target, '..'), { recursive: true });
  await rename(received.path, target);
  const folder = await open(join(target, '..'), 'r');
  await folder.sync();
  await folder.close();
}

/** Receives a file that already lies on this machine's disk. */
export function receiveFromDisk(dataDir: string, path: string): Promise<ReceivedFile> {
  return receiveFile(dataDir, createReadStream(path), Number.MAX_SAFE_INTEGER);
}

/** Receives bytes that are in memory already. */
export function receiveBytes(dataDir: string, bytes: Uint8Array): Promise<ReceivedFile> {
  return receiveFile(dataDir, Readable.from([bytes]), Number.MAX_SAFE_INTEGER);
}

/** Whether an asset is there. */
export async function hasAsset(dataDir: string, hash: string): Promise<boolean> {
  return stat(assetPath(dataDir, hash)).then(
    () => true,
    () => false,
  );
}
