import { open, readFile, stat } from 'node:fs/promises';
import { setImmediate } from 'node:timers/promises';
import { join } from 'node:path';
import sharp from 'sharp';
import { srgb } from '@/core/color/srgb';
import { createAreaShrink } from '@/core/plane/area-shrink';
import type { Region } from '@/core/plane/region';
import type { Size } from '@/engine/sizes';
import { AppError } from './app-error';
import { assetPath } from './asset-store';
import { keepCopy } from './keep-copy';
import { isRaw, openPlate, type OpenedPlate, type PlatePicture } from './open-plate';

/** Gives parts of plates, at their own or at a smaller size. */
export interface PlateReader {
  /** Interleaved RGB of a region, 16-bit sRGB codes, 3 * width * height. Sizes above the plate's own are refused. */
  read: (hash: string, region: Region) => Promise<Uint16Array>;
  /** Takes over a plate that was just decoded, so that it need not be decoded again. */
  prime: (hash: string, plate: OpenedPlate) => Promise<void>;
}

/** Steps of the table that turns linear light into 16-bit codes, spent along its square root. */
const ENCODE_STEPS = 1 << 18;

/** Pixels of a plate that are shrunk before other requests get their turn. */
const SHRINK_PIXELS = 1e6;

/** Least width of the copy of a large plate that stands between it and small ones, pixels. */
const MIDDLE_WIDTH = 1000;

/** Bytes before the codes of a raw file that was developed: its width and height. */
const DEVELOPED_HEAD = 8;

/**
 * A reader of a data folder's plates. The plate that was read last stays decoded, since a picture is read band by band.
 * Smaller sizes are area averages in linear light; they are kept beside the assets, since they are asked for again, and so
 * are developed raw files.
 */
export function createPlateReader(dataDir: string): PlateReader {
  const derived = (name: string) => join(dataDir, 'derived', name);
  const developed = (hash: string) => derived(`${hash}.raw16`);
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
    const head = await readHead(developed(hash));
    if (head) {
      const { buffer, byteOffset, byteLength } = await readFile(developed(hash));
      return {
        ...head,
        data: new Uint16Array(buffer.slice(byteOffset + DEVELOPED_HEAD, byteOffset + byteLength)),
      };
    }
    const path = assetPath(dataDir, hash);
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
    return { ...size, data: await shrink(await decoded(hash), size) };
  });

  async function shrunkCodes(hash: string, width: number, height: number): Promise<PlatePicture> {
    const kept = derived(`${hash}-${width}x${height}.u16`);
    const bytes = 6 * width * height;
    const found = await readFile(kept).catch(() => undefined);
    if (found?.byteLength === bytes) {
      return { data: new Uint16Array(found.buffer, found.byteOffset, bytes / 2), width, height };
    }
    const middle = await middleOf(hash);
    const source = middle && middle.width >= 2 * width ? middle : await decoded(hash);
    const data = await shrink(source, { width, height });
    await keepCopy(kept, new Uint8Array(data.buffer));
    return { data, width, height };
  }

  return {
    async read(hash, region) {
      const { fullWidth, fullHeight } = region;
      const { width, height } = await sizeOf(hash);
      if (width === fullWidth && height === fullHeight) return cut(await decoded(hash), region);
      if (fullWidth > width || fullHeight > height) {
        throw new AppError(400, 'too-large', 'A plate cannot be read larger than it is.');
      }
      return cut(await shrunk(`${hash} ${fullWidth} ${fullHeight}`), region);
    },
    async prime(hash, plate) {
      decoded.set(hash, plate.picture);
      await keepDeveloped(hash, plate);
    },
  };
}

/** Width and height of a developed raw file, where it is kept. */
async function readHead(path: string): Promise<{ width: number; height: number } | undefined> {
  const file = await open(path).catch(() => undefined);
  if (!file) return undefined;
  const { buffer } = await file
    .read(Buffer.alloc(DEVELOPED_HEAD), 0, DEVELOPED_HEAD, 0)
    .finally(() => file.close());
  return { width: buffer.readUInt32LE(0), height: buffer.readUInt32LE(4) };
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

/** The codes of a region of a picture in 16 bits. */
function cut({ data, width }: PlatePicture, region: Region): Uint16Array {
  const factor = data.BYTES_PER_ELEMENT === 1 ? 257 : 1;
  const out = new Uint16Array(3 * region.width * region.height);
  const row = 3 * region.width;
  for (let y = 0; y < region.height; y++) {
    const from = 3 * ((region.top + y) * width + region.left);
    for (let i = 0; i < row; i++) out[y * row + i] = data[from + i] * factor;
  }
  return out;
}

async function shrink({ data, width, height }: PlatePicture, size: Size): Promise<Uint16Array> {
  const most = data.BYTES_PER_ELEMENT === 1 ? 255 : 65535;
  const linearOf = Float32Array.from({ length: most + 1 }, (_, code) => srgb.decode(code / most));
  const linear = new Float32Array(3 * size.width * size.height);
  const fill = createAreaShrink(linear, { codes: data, width, height, linearOf }, size);
  const rows = Math.max(1, Math.round((SHRINK_PIXELS * size.height) / (width * height)));
  for (let from = 0; from < size.height; from += rows) {
    fill({ from, to: Math.min(size.height, from + rows) });
    await setImmediate();
  }
  const encoded = new Uint16Array(ENCODE_STEPS + 1);
  for (let i = 0; i <= ENCODE_STEPS; i++)
    encoded[i] = Math.round(65535 * srgb.encode((i / ENCODE_STEPS) ** 2));
  const codes = new Uint16Array(linear.length);
  for (let i = 0; i < codes.length; i++) {
    codes[i] = encoded[(Math.sqrt(Math.min(1, linear[i])) * ENCODE_STEPS + 0.5) | 0];
  }
  return codes;
}
