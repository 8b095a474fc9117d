import { createHash, randomUUID } from 'node:crypto';
import { createReadStream, existsSync, mkdirSync } from 'node:fs';
import { open, rename, rm, stat, utimes, type FileHandle } from 'node:fs/promises';
import { dirname, join } from 'node:path';
import { pipeline } from 'node:stream/promises';
import { Readable } from 'node:stream';
import { AppError, diskFull, fullDisk } from '../http/app-error';

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

/** Writes all of some bytes: a disk that is nearly full takes a part of them first and only then says so. */
export async function writeWhole(file: Pick<FileHandle, 'write'>, bytes: Uint8Array): Promise<void> {
  for (let at = 0; at < bytes.byteLength;) {
    const { bytesWritten } = await file.write(bytes, at, bytes.byteLength - at);
    if (bytesWritten === 0) throw fullDisk();
    at += bytesWritten;
  }
}

const tooLarge = (mostBytes: number) =>
  new AppError(
    413,
    'too-large',
    `The file is larger than ${Math.round(mostBytes / 2 ** 20)} MB. Save it smaller and try again.`,
  );

/** Times the bytes that are taken of which a sender is heard out, before the connection is given up. */
const HEARD_OUT = 4;

/** Writes a stream to a new file. Gives its hash and size. Throws once it is larger than `mostBytes`. */
async function writeStream(
  path: string,
  stream: AsyncIterable<Uint8Array>,
  mostBytes: number,
): Promise<Omit<ReceivedFile, 'path'>> {
  const hash = createHash('sha256');
  let bytes = 0;
  const file = await open(path, 'wx');
  try {
    for await (const chunk of stream) {
      bytes += chunk.byteLength;
      if (bytes > mostBytes) throw tooLarge(mostBytes);
      hash.update(chunk);
      await writeWhole(file, chunk);
    }
    await file.sync();
    return { hash: hash.digest('hex'), bytes };
  } finally {
    await file.close();
  }
}

/** A stream whose rest stays readable when a loop over it is left, until it is ended. */
interface LeavableStream extends AsyncIterable<Uint8Array> {
  end: () => Promise<void>;
}

function leavable(stream: AsyncIterable<Uint8Array>): LeavableStream {
  const chunks = stream[Symbol.asyncIterator]();
  return {
    [Symbol.asyncIterator]: () => ({ next: () => chunks.next() }),
    end: async () => void (await chunks.return?.()),
  };
}

/**
 * Reads what is left of a stream and drops it: who still sends would otherwise not come to hear of what went wrong. One that
 * goes on for too long is ended.
 */
async function hearOut(rest: LeavableStream, mostBytes: number): Promise<void> {
  let bytes = 0;
  try {
    for await (const chunk of rest) {
      bytes += chunk.byteLength;
      if (bytes > HEARD_OUT * mostBytes) return await rest.end();
    }
  } catch {
    // The sender is gone.
  }
}

/**
 * Receives a stream into a temporary file of the data folder, counting and hashing on the way, and reads back what reached
 * the disk. Throws 413 once it is larger than `mostBytes`, 507 when the disk is full; nothing is left behind then.
 */
export async function receiveFile(
  dataDir: string,
  stream: AsyncIterable<Uint8Array>,
  mostBytes: number,
): Promise<ReceivedFile> {
  const path = join(dataDir, 'incoming', randomUUID());
  const chunks = leavable(stream);
  try {
    mkdirSync(dirname(path), { recursive: true });
    const received = { path, ...(await writeStream(path, chunks, mostBytes)) };
    if (!(await isWhole(path, received))) {
      throw new AppError(500, 'bad-disk', 'What reached the disk is not what was sent. Check the disk.');
    }
    return received;
  } catch (error) {
    await rm(path, { force: true });
    await hearOut(chunks, mostBytes);
    return toldOfDisk(error);
  }
}

function toldOfDisk(error: unknown): never {
  throw diskFull(error) ? fullDisk() : error;
}

/** Whether a file is there with the size and the content that its name stands for. */
async function isWhole(
  path: string,
  { hash, bytes }: Pick<ReceivedFile, 'hash' | 'bytes'>,
): Promise<boolean> {
  const found = await stat(path).catch(() => undefined);
  if (found?.size !== bytes) return false;
  const read = createHash('sha256');
  await pipeline(createReadStream(path), read);
  return read.digest('hex') === hash;
}

/** Makes a received file an asset. The same content twice is stored once; what is broken of an earlier time is replaced. */
export async function keepFile(dataDir: string, received: ReceivedFile): Promise<void> {
  const target = assetPath(dataDir, received.hash);
  if (await isWhole(target, received)) {
    await rm(received.path, { force: true });
    return touch(target);
  }
  const folder = dirname(target);
  const isNew = !existsSync(folder);
  mkdirSync(folder, { recursive: true });
  await rename(received.path, target);
  await syncFolder(folder);
  if (isNew) await syncFolder(dirname(folder));
}

async function syncFolder(path: string): Promise<void> {
  const folder = await open(path, 'r');
  await folder.sync().finally(() => folder.close());
}

/** Says of a file that it is in use: what nobody used for long is collected first. A file that is gone is passed over. */
export async function touch(path: string): Promise<void> {
  const now = new Date();
  await utimes(path, now, now).catch(() => {});
}

/** Receives a file that already lies on this machine's disk. */
export function receiveFromDisk(dataDir: string, path: string): Promise<ReceivedFile> {
  return receiveFile(dataDir, createReadStream(path), Number.MAX_SAFE_INTEGER);
}

/** Receives bytes that are in memory already. */
export function receiveBytes(dataDir: string, bytes: Uint8Array): Promise<ReceivedFile> {
  return receiveFile(dataDir, Readable.from([bytes]), Number.MAX_SAFE_INTEGER);
}
