import { open, readFile, stat } from 'node:fs/promises';
import { join } from 'node:path';
import sharp from 'sharp';
import { createSrgbEncoder } from '@/core/color/srgb-codes';
import type { Region } from '@/core/plane/region';
import { servedSizes, type Size } from '@/engine/sizes';
import { AppError } from '../http/app-error';
import { assetPath, touch } from '../assets/asset-store';
import { keepCopy } from '../assets/keep-copy';
import { isRaw, openPlate, type OpenedPlate, type PlatePicture } from './open-plate';
import { cutPlate, shrinkPlate } from './plate-picture';

/** Gives parts of plates, at their own or at a smaller size. */
export interface PlateReader {
  /**
   * Interleaved RGB of a region, 16-bit sRGB codes, 3 * width * height. Sizes above the plate's own are refused. Rejects when
   * `signal` says that nobody waits for it any more.
   */
  read: (hash: string, region: Region, signal?: AbortSignal) => Promise<Uint16Array>;
  /** Takes over a plate that was just decoded, so that it need not be decoded again. */
  prime: (hash: string, plate: OpenedPlate) => Promise<void>;
}

/** Least width of the copy of a large plate that stands between it and small ones, pixels. */
const MIDDLE_WIDTH = 1000;

/** Bytes before the codes of a raw file that was developed: its width and height. */
const DEVELOPED_HEAD = 8;

/**
 * A reader of a data folder's plates. The plate that was read last stays decoded, since a picture is read band by band.
 * Smaller sizes are area averages in linear light; those that are asked for again are kept beside the assets, and so are
 * developed raw files.
 */
export function createPlateReader(dataDir: string): PlateReader {
  const derived = (name: string) => join(dataDir, 'derived', name);
  const developed = (hash: string) => derived(`${hash}.raw16`);
  const encode = createSrgbEncoder();
  const decoded = rememberLast(decode);
  const sizeOf = rememberLast(async (hash: string) => {
    const head = await readHead(developed(hash));
    if (head) return head;
    const meta = await sharp(assetPath(dataDir, hash))
      .metadata()
      .catch(() => undefined);
    return meta?.autoOrient ?? (await decoded(hash));
  });
  const shrunk = rememberLast((key: string) => {
    const [hash, width, height] = key.split(' ');
    return shrunkCodes(hash, Number(width), Number(height));
  });

  async function decode(hash: string): Promise<PlatePicture> {
    const path = assetPath(dataDir, hash);
    await touch(path);
    const head = await readHead(developed(hash));
    if (head) {
      await touch(developed(hash));
      const { buffer, byteOffset, byteLength } = await readFile(developed(hash));
      return {
        ...head,
        data: new Uint16Array(buffer, byteOffset + DEVELOPED_HEAD, (byteLength - DEVELOPED_HEAD) / 2),
      };
    }
    const plate = await openPlate(path, (await stat(path)).size);
    await keepDeveloped(hash, plate);
    return plate.picture;
  }

  async function keepDeveloped(hash: string, { facts, picture }: OpenedPlate): Promise<void> {
    if (!isRaw(facts)) return;
    const { data, width, height } = picture;
    const head = Buffer.alloc(DEVELOPED_HEAD);
    head.writeUInt32LE(width, 0);
    head.writeUInt32LE(height, 4);
    await keepCopy(
      developed(hash),
      Buffer.concat([head, new Uint8Array(data.buffer, data.byteOffset, data.byteLength)]),
    );
  }

  /** A copy of a large plate, a whole number of times smaller, from which still smaller ones are made quickly. */
  const middleOf = rememberLast(async (hash: string) => {
    const { width, height } = await sizeOf(hash);
    const times = Math.floor(width / MIDDLE_WIDTH);
    if (times < 2) return undefined;
    const size = { width: Math.round(width / times), height: Math.max(1, Math.round(height / times)) };
    return { ...size, data: await shrinkPlate(await decoded(hash), size, encode) };
  });

  async function shrunkCodes(hash: string, width: number, height: number): Promise<PlatePicture> {
    const kept = derived(`${hash}-${width}x${height}.u16`);
    const bytes = 6 * width * height;
    const found = await readFile(kept).catch(() => undefined);
    if (found?.byteLength === bytes) {
      await touch(kept);
      return { data: new Uint16Array(found.buffer, found.byteOffset, bytes / 2), width, height };
    }
    const middle = await middleOf(hash);
    const source = middle && middle.width >= 2 * width ? middle : await decoded(hash);
    const data = await shrinkPlate(source, { width, height }, encode);
    if (isServed(await sizeOf(hash), { width, height })) await keepCopy(kept, new Uint8Array(data.buffer));
    return { data, width, height };
  }

  return {
    async read(hash, region, signal) {
      const { fullWidth, fullHeight } = region;
      const { width, height } = await sizeOf(hash);
      if (width === fullWidth && height === fullHeight)
        return cutPlate(await decoded(hash), region, encode, signal);
      if (fullWidth > width || fullHeight > height) {
        throw new AppError(400, 'too-large', 'A plate cannot be read larger than it is.');
      }
      signal?.throwIfAborted();
      return cutPlate(await shrunk(`${hash} ${fullWidth} ${fullHeight}`), region, encode, signal);
    },
    async prime(hash, plate) {
      decoded.set(hash, plate.picture);
      await keepDeveloped(hash, plate);
    },
  };
}

/** Checks that a plate is served at the size of a region. Throws 400. */
export function requireServed(plate: Size, { fullWidth: width, fullHeight: height }: Region): void {
  if (!isServed(plate, { width, height }))
    throw new AppError(400, 'bad-size', 'A plate is not served at this size.');
}

/** Whether a plate is served at a size. */
const isServed = (plate: Size, { width, height }: Size): boolean =>
  servedSizes(plate).some((size) => size.width === width && size.height === height);

/** Width and height of a developed raw file, where it is kept whole. */
async function readHead(path: string): Promise<Size | undefined> {
  const file = await open(path).catch(() => undefined);
  if (!file) return undefined;
  try {
    const { buffer } = await file.read(Buffer.alloc(DEVELOPED_HEAD), 0, DEVELOPED_HEAD, 0);
    const [width, height] = [buffer.readUInt32LE(0), buffer.readUInt32LE(4)];
    const { size } = await file.stat();
    return size === DEVELOPED_HEAD + 6 * width * height ? { width, height } : undefined;
  } finally {
    await file.close();
  }
}

interface Remembering<T> {
  (key: string): Promise<T>;
  set: (key: string, value: T) => void;
}

/** Keeps the last result of an asynchronous function; a failed one is not kept. */
function rememberLast<T>(make: (key: string) => Promise<T>): Remembering<T> {
  let last: { key: string; value: Promise<T> } | undefined;
  const remembering = (key: string) => {
    if (last?.key === key) return last.value;
    const value = make(key);
    const entry = { key, value };
    last = entry;
    value.catch(() => {
      if (last === entry) last = undefined;
    });
    return value;
  };
  return Object.assign(remembering, {
    set: (key: string, value: T) => {
      last = { key, value: Promise.resolve(value) };
    },
  });
}
