import { open, readFile } from 'node:fs/promises';
import type { Size } from '@/engine/sizes';
import { touch } from '../assets/asset-store';
import { keepCopy } from '../assets/keep-copy';
import type { PlatePicture } from './open-plate';

/** Bytes before the codes of a raw file that was developed: its width and height. */
const HEAD = 8;

/** Keeps a developed raw file. */
export async function keepDeveloped(path: string, { data, width, height }: PlatePicture): Promise<void> {
  const head = Buffer.alloc(HEAD);
  head.writeUInt32LE(width, 0);
  head.writeUInt32LE(height, 4);
  await keepCopy(path, Buffer.concat([head, new Uint8Array(data.buffer, data.byteOffset, data.byteLength)]));
}

/** A developed raw file, where it is kept whole. */
export async function readDeveloped(path: string): Promise<PlatePicture | undefined> {
  const size = await developedSize(path);
  if (!size) return undefined;
  await touch(path);
  const { buffer, byteOffset, byteLength } = await readFile(path);
  return { ...size, data: new Uint16Array(buffer, byteOffset + HEAD, (byteLength - HEAD) / 2) };
}

/** Width and height of a developed raw file, where it is kept whole. */
export async function developedSize(path: string): Promise<Size | undefined> {
  const file = await open(path).catch(() => undefined);
  if (!file) return undefined;
  try {
    const { buffer } = await file.read(Buffer.alloc(HEAD), 0, HEAD, 0);
    const [width, height] = [buffer.readUInt32LE(0), buffer.readUInt32LE(4)];
    const { size } = await file.stat();
    return size === HEAD + 6 * width * height ? { width, height } : undefined;
  } finally {
    await file.close();
  }
}
