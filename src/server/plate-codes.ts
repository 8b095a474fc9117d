import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import sharp from 'sharp';
import { srgb } from '@/core/color/srgb';
import { areaResample } from '@/core/plane/area-resample';
import type { Region } from '@/core/plane/region';
import { AppError } from './app-error';
import { assetPath } from './asset-store';
import { keepCopy } from './keep-copy';
import { LIMITS } from './limits';

/** A whole picture as interleaved RGB codes. */
interface Codes<Data> {
  data: Data;
  width: number;
  height: number;
}

/** Gives parts of plates, at their own or at a smaller size. */
export interface PlateReader {
  /** Interleaved RGB of a region, 16-bit sRGB codes, 3 * width * height. Sizes above the plate's own are refused. */
  read: (hash: string, region: Region) => Promise<Uint16Array>;
}

/** Steps of the table that turns linear light into 16-bit codes, spent along its square root. */
const ENCODE_STEPS = 1 << 18;

/**
 * A reader of a data folder's plates. The plate that was read last stays decoded, since a picture is read band by band.
 * Smaller sizes are area averages in linear light; they are kept beside the assets, since they are asked for again.
 */
export function createPlateReader(dataDir: string): PlateReader {
  const sizeOf = rememberLast(
    async (hash: string) => (await sharp(assetPath(dataDir, hash)).metadata()).autoOrient,
  );
  const decoded = rememberLast((hash: string) => decodePlate(assetPath(dataDir, hash)));
  const shrunk = rememberLast((key: string) => {
    const [hash, width, height] = key.split(' ');
    return shrunkCodes(hash, Number(width), Number(height));
  });

  async function shrunkCodes(hash: string, width: number, height: number): Promise<Codes<Uint16Array>> {
    const kept = join(dataDir, 'derived', `${hash}-${width}x${height}.u16`);
    const bytes = 6 * width * height;
    const found = await readFile(kept).catch(() => undefined);
    if (found?.byteLength === bytes) {
      return { data: new Uint16Array(found.buffer, found.byteOffset, bytes / 2), width, height };
    }
    const data = shrink(await decoded(hash), { width, height });
    await keepCopy(kept, new Uint8Array(data.buffer));
    return { data, width, height };
  }

  return {
    async read(hash, region) {
      const { fullWidth, fullHeight } = region;
      const { width, height } = await sizeOf(hash);
      if (width === fullWidth && height === fullHeight) return cut(await decoded(hash), region, 257);
      if (fullWidth > width || fullHeight > height) {
        throw new AppError(400, 'too-large', 'A plate cannot be read larger than it is.');
      }
      return cut(await shrunk(`${hash} ${fullWidth} ${fullHeight}`), region, 1);
    },
  };
}

/** Keeps the last result of an asynchronous function; a failed one is not kept. */
function rememberLast<T>(make: (key: string) => Promise<T>): (key: string) => Promise<T> {
  let last: { key: string; value: Promise<T> } | undefined;
  return (key) => {
    if (last?.key === key) return last.value;
    const value = make(key);
    const entry = { key, value };
    last = entry;
    value.catch(() => {
      if (last === entry) last = undefined;
    });
    return value;
  };
}

/** A whole plate as 8-bit sRGB codes, turned as it is meant to be seen. */
async function decodePlate(path: string): Promise<Codes<Uint8Array>> {
  const { data, info } = await sharp(path, { limitInputPixels: LIMITS.platePixels })
    .autoOrient()
    .flatten({ background: '#000' })
    .toColourspace('srgb')
    .raw()
    .toBuffer({ resolveWithObject: true });
  return { data, width: info.width, height: info.height };
}

/** The codes of a region of a picture, each times `factor`. */
function cut({ data, width }: Codes<Uint8Array | Uint16Array>, region: Region, factor: number): Uint16Array {
  const out = new Uint16Array(3 * region.width * region.height);
  const row = 3 * region.width;
  for (let y = 0; y < region.height; y++) {
    const from = 3 * ((region.top + y) * width + region.left);
    for (let i = 0; i < row; i++) out[y * row + i] = data[from + i] * factor;
  }
  return out;
}

function shrink(plate: Codes<Uint8Array>, size: { width: number; height: number }): Uint16Array {
  const linearOf = Float32Array.from({ length: 256 }, (_, code) => srgb.decode(code / 255));
  const row = new Float32Array(3 * plate.width);
  const linear = new Float32Array(3 * size.width * size.height);
  const rowAt = (y: number) => {
    const first = y * row.length;
    for (let i = 0; i < row.length; i++) row[i] = linearOf[plate.data[first + i]];
    return row;
  };
  areaResample(linear, rowAt, plate, size, 3);
  const encoded = new Uint16Array(ENCODE_STEPS + 1);
  for (let i = 0; i <= ENCODE_STEPS; i++)
    encoded[i] = Math.round(65535 * srgb.encode((i / ENCODE_STEPS) ** 2));
  const codes = new Uint16Array(linear.length);
  for (let i = 0; i < codes.length; i++) {
    codes[i] = encoded[Math.round(Math.sqrt(Math.min(1, linear[i])) * ENCODE_STEPS)];
  }
  return codes;
}
