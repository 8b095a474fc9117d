import { mkdirSync } from 'node:fs';
import { readFile, rename, writeFile } from 'node:fs/promises';
import { randomUUID } from 'node:crypto';
import { join } from 'node:path';
import sharp from 'sharp';
import { srgb } from '@/core/color/srgb';
import { areaResample } from '@/core/plane/area-resample';
import { assetPath } from './asset-store';
import { LIMITS } from './limits';

interface Size {
  width: number;
  height: number;
}

/** Steps of the table that turns linear light into 16-bit codes, spent along its square root. */
const ENCODE_STEPS = 1 << 18;

/** A whole plate as interleaved RGB, 8-bit sRGB codes, turned as it is meant to be seen. */
async function decodePlate(path: string): Promise<{ data: Uint8Array; width: number; height: number }> {
  const { data, info } = await sharp(path, { limitInputPixels: LIMITS.platePixels })
    .autoOrient()
    .flatten({ background: '#000' })
    .toColourspace('srgb')
    .raw()
    .toBuffer({ resolveWithObject: true });
  return { data, width: info.width, height: info.height };
}

/**
 * A plate at a size, as interleaved RGB of 16-bit sRGB codes. Smaller sizes are area averages in linear light; sizes
 * below the plate's own are kept beside the assets, since they are asked for again.
 */
export async function plateCodes(dataDir: string, hash: string, size: Size): Promise<Uint16Array> {
  const folder = join(dataDir, 'derived');
  const kept = join(folder, `${hash}-${size.width}x${size.height}.u16`);
  const bytes = 6 * size.width * size.height;
  const found = await readFile(kept).catch(() => undefined);
  if (found?.byteLength === bytes) return new Uint16Array(found.buffer, found.byteOffset, bytes / 2);
  const plate = await decodePlate(assetPath(dataDir, hash));
  if (plate.width === size.width && plate.height === size.height) {
    const codes = new Uint16Array(plate.data.length);
    for (let i = 0; i < codes.length; i++) codes[i] = plate.data[i] * 257;
    return codes;
  }
  const codes = shrink(plate, size);
  mkdirSync(folder, { recursive: true });
  const temporary = join(folder, randomUUID());
  await writeFile(temporary, new Uint8Array(codes.buffer)).then(
    () => rename(temporary, kept),
    () => {}, // A full disk only costs the copy.
  );
  return codes;
}

function shrink(plate: { data: Uint8Array; width: number; height: number }, size: Size): Uint16Array {
  const decoded = Float32Array.from({ length: 256 }, (_, code) => srgb.decode(code / 255));
  const row = new Float32Array(3 * plate.width);
  const linear = new Float32Array(3 * size.width * size.height);
  const rowAt = (y: number) => {
    const first = y * row.length;
    for (let i = 0; i < row.length; i++) row[i] = decoded[plate.data[first + i]];
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
