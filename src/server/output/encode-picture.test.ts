import { mkdtemp, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { inflateSync } from 'node:zlib';
import exifr from 'exifr';
import sharp from 'sharp';
import { expect, it } from 'vitest';
import type { OutputChoice, OutputFormat } from '@/core/output/output-formats';
import type { ToldFacts } from '@/core/output/photo-facts';
import { encodePicture } from './encode-picture';
import { readPhotoFacts } from './read-photo-facts';

const SIZE = { width: 48, height: 32 };
const choice = (format: OutputFormat, more: Partial<OutputChoice> = {}): OutputChoice => ({
  ...{ format, quality: 95 },
  ...more,
});

/** A picture of one colour, or of two with an upright edge between them. */
function plain(left: number[], right = left, bits: 8 | 16 = 8) {
  const rgb = bits === 8 ? new Uint8Array(3 * 48 * 32) : new Uint16Array(3 * 48 * 32);
  for (let i = 0; i < rgb.length; i++)
    rgb[i] = ((i / 3) % 48 < 24 ? left : right)[i % 3] * (bits === 8 ? 1 : 257);
  return rgb;
}

/** Codes as they are in the file, whatever its profile says of them. */
const codesOf = async (file: Uint8Array) =>
  new Uint8Array(await sharp(file, { ignoreIcc: true }).toColourspace('srgb').raw().toBuffer());

/** The first pixel of a PNG of one colour, read by hand: packages turn colours into their own. */
function firstPixel(png: Uint8Array): number[] {
  const view = Buffer.from(png);
  const parts: Buffer[] = [];
  for (let at = 8; at < view.length; at += 12 + view.readUInt32BE(at)) {
    if (view.toString('latin1', at + 4, at + 8) === 'IDAT') {
      parts.push(view.subarray(at + 8, at + 8 + view.readUInt32BE(at)));
    }
  }
  const raw = inflateSync(Buffer.concat(parts));
  const isDeep = view[24] === 16;
  return [0, 1, 2].map((c) => (isDeep ? raw.readUInt16BE(1 + 2 * c) / 257 : raw[1 + c]));
}

const FACTS: ToldFacts = {
  title: 'Abend über dem Kai',
  description: 'Lit: Quay (2).',
  make: 'Larkfield',
  artist: 'Åse Berg',
  taken: '2026-01-31T18:05:09',
  exposureTime: 1 / 60,
  place: { latitude: 52.5, longitude: -1.25 },
};

it.each([
  // Red of sRGB within Display P3, by the primaries and curve of both (IEC 61966-2-1, SMPTE EG 432-1).
  [
    [255, 0, 0],
    [234, 51, 35],
  ],
  [
    [0, 255, 0],
    [117, 251, 76],
  ],
  [
    [0, 0, 255],
    [0, 0, 245],
  ],
  [
    [128, 128, 128],
    [128, 128, 128],
  ],
])('codes %s of sRGB are %s of Display P3, and come back as the same colour', async (srgb, p3) => {
  for (const format of ['png', 'png16'] as const) {
    const deep = format === 'png16';
    const rgb = plain(srgb, srgb, deep ? 16 : 8);
    const file = await encodePicture(rgb, SIZE, choice(format, { colours: 'p3' }));
    firstPixel(file).forEach((code, c) => expect(Math.abs(code - p3[c])).toBeLessThanOrEqual(1));
    const meta = await sharp(file).metadata();
    expect(meta.icc!.toString('latin1').replaceAll('\0', '')).toContain('sP3C');
    expect(meta.depth).toBe(deep ? 'ushort' : 'uchar');
    const back = await sharp(file).withIccProfile('srgb').raw().toBuffer();
    [...back.subarray(0, 3)].forEach((code, c) => expect(Math.abs(code - srgb[c])).toBeLessThanOrEqual(3));
  }
});

it('a TIFF of 32 bits holds linear light', async () => {
  const file = await encodePicture(plain([255, 128, 0], undefined, 16), SIZE, choice('tiff32'));
  const meta = await sharp(file).metadata();
  expect(meta).toMatchObject({ ...SIZE, depth: 'float', space: 'scrgb' });
  const raw = await sharp(file).toColourspace('scrgb').raw({ depth: 'float' }).toBuffer();
  const [r, g, b] = new Float32Array(raw.buffer.slice(raw.byteOffset, raw.byteOffset + 12));
  expect(r).toBeCloseTo(1, 4);
  expect(g).toBeCloseTo(((128 / 255 + 0.055) / 1.055) ** 2.4, 4);
  expect(b).toBe(0);
});

it('an AVIF of 10 bits tells tones apart that 8 bits do not', async () => {
  const rgb = new Uint16Array(3 * 256 * 64);
  for (let i = 0; i < rgb.length; i++) rgb[i] = 6000 + (((i / 3) % 256) | 0) * 8;
  const size = { width: 256, height: 64 };
  const tones = async (format: 'avif' | 'avif10') => {
    const codes = format === 'avif' ? Uint8Array.from(rgb, (code) => code >> 8) : rgb;
    const file = await encodePicture(codes, size, choice(format, { quality: 100 }));
    const bits = (await sharp(file).metadata()).bitsPerSample;
    const raw = await sharp(file).toColourspace('rgb16').raw({ depth: 'ushort' }).toBuffer();
    const row = new Uint16Array(raw.buffer, raw.byteOffset, 3 * 256).filter((_, i) => i % 3 === 1);
    return { bits, tones: new Set(row).size };
  };
  const [plainOne, deep] = [await tones('avif'), await tones('avif10')];
  expect([plainOne.bits, deep.bits]).toEqual([8, 10]);
  expect(deep.tones).toBeGreaterThan(2 * plainOne.tones);
});

it('sharpening lifts an edge and leaves flats alone; none is none to the byte', async () => {
  const rgb = plain([60, 60, 60], [120, 120, 120]);
  const written = async (more: Partial<OutputChoice>) =>
    codesOf(await encodePicture(rgb, SIZE, choice('png', more)));
  expect(Buffer.from(await written({ sharpen: 0 })).equals(Buffer.from(rgb))).toBe(true);
  const sharp1 = await written({ sharpen: 1 });
  const at = (x: number) => sharp1[3 * (16 * 48 + x)];
  expect(at(25)).toBeGreaterThanOrEqual(120);
  expect(at(24) - at(23)).toBeGreaterThan(65);
  expect([at(4), at(44)]).toEqual([60, 120]);
  const half = await written({ sharpen: 0.3 });
  expect(half[3 * (16 * 48 + 24)]).toBeLessThan(at(24));
});

it.each(['jpeg', 'png', 'webp', 'avif', 'tiff'] as const)(
  'a %s says what it is told, and no more',
  async (format) => {
    const told = await encodePicture(
      plain([9, 9, 9], undefined, format === 'tiff' ? 16 : 8),
      SIZE,
      choice(format),
      FACTS,
    );
    const { exif, xmp } = await sharp(told).metadata();
    expect(xmp!.toString()).toContain('Abend über dem Kai');
    expect(xmp!.toString()).toContain('exif:GPSLatitude="52,30.00000N"');
    // TIFF keeps its tags elsewhere: there, XMP alone tells.
    if (format !== 'tiff') expect(exif!.toString('latin1')).toContain('Larkfield');
    const silent = await encodePicture(plain([9, 9, 9]), SIZE, choice('jpeg'));
    expect((await sharp(silent).metadata()).exif).toBeUndefined();
  },
);

it('a camera’s facts are read back by others as they were', async () => {
  const file = await encodePicture(plain([9, 9, 9]), SIZE, choice('jpeg'), FACTS);
  const tags = (await exifr.parse(file, { reviveValues: false })) as Record<string, unknown>;
  expect(tags).toMatchObject({
    Make: 'Larkfield',
    DateTimeOriginal: '2026:01:31 18:05:09',
    ImageDescription: 'Lit: Quay (2).',
  });
  expect(tags.ExposureTime).toBeCloseTo(1 / 60, 6);
  expect(tags.latitude).toBeCloseTo(52.5, 6);
  expect(tags.longitude).toBeCloseTo(-1.25, 6);
});

it('facts of a photo go from its file into the night’s; a file that says nothing says nothing', async () => {
  const folder = await mkdtemp(join(tmpdir(), 'sundew-facts-'));
  const path = join(folder, 'photo');
  const { title: _title, description: _description, ...photo } = FACTS;
  await writeFile(path, await encodePicture(plain([9, 9, 9]), SIZE, choice('jpeg'), FACTS));
  const { artist: _artist, place, ...read } = await readPhotoFacts(path);
  // Exif has no letters for the artist.
  expect(read).toMatchObject({ make: photo.make, taken: photo.taken });
  expect(place!.latitude).toBeCloseTo(52.5, 6);
  await writeFile(path, 'no picture');
  expect(Object.values(await readPhotoFacts(path)).filter((value) => value !== undefined)).toEqual([]);
  await rm(folder, { recursive: true });
});
