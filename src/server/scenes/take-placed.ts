import { rm } from 'node:fs/promises';
import sharp, { type Metadata } from 'sharp';
import { cutToBody, fillClear, isOpaque, type ClearPicture } from '@/core/placed/clear-picture';
import { divideOut, isMultiplied } from '@/core/placed/multiplied';
import { WHOLE_BODY, type PlacedBody } from '@/core/placed/placed-schema';
import type { TakenPicture } from '@/core/placed/taken-picture';
import { receiveBytes, type ReceivedFile } from '../assets/asset-store';
import { takeCoverage } from '../assets/coverage-store';
import type { Workspace } from '../assets/workspace';
import { AppError } from '../http/app-error';
import { LIMITS } from '../http/limits';
import { damaged } from '../plates/decode-codes';
import { checkSize, saysSrgb } from '../plates/open-plate';
import { takePlate } from './intake';

/** Most pixels of a coverage that is kept of a picture. */
const ALPHA_PIXELS = 4e6;

/** Said of a picture whose colours were multiplied by its coverage. */
const MULTIPLIED =
  'Its colours were saved multiplied by their coverage. That is divided out, so that its edge is not dark.';

/** Pictures of more pixels are packed quickly rather than tightly. */
const LARGE = 3e6;

/**
 * Makes a received file a picture to be placed: whatever a plate could be. One that is clear in part becomes two files, cut down to what
 * is there: its colours, which go on under what is clear, and its coverage. Throws an AppError.
 */
export async function takePlaced(space: Workspace, received: ReceivedFile): Promise<TakenPicture> {
  const parts = await readParts(space, received).catch(async (error: unknown) => {
    await rm(received.path, { force: true });
    throw error;
  });
  if (!parts) {
    const { width, height, note } = await takePlate(space, received);
    return { asset: received.hash, width, height, body: WHOLE_BODY, note };
  }
  await rm(received.path, { force: true });
  const { asset: alpha } = await takeCoverage(space, await receiveBytes(space.dataDir, parts.coverage));
  const picture = await receiveBytes(space.dataDir, parts.color);
  const { width, height } = await takePlate(space, picture);
  return { asset: picture.hash, width, height, alpha, body: parts.body, note: parts.note };
}

interface Parts {
  color: Uint8Array;
  coverage: Uint8Array;
  body: PlacedBody;
  note?: string;
}

/** A picture's colours and coverage, where it is clear in part. */
async function readParts({ decoding }: Workspace, { path }: ReceivedFile): Promise<Parts | undefined> {
  const meta = await sharp(path, { limitInputPixels: false })
    .metadata()
    .catch(() => undefined);
  if (!meta?.hasAlpha) return undefined;
  checkSize(meta.autoOrient.width, meta.autoOrient.height);
  return decoding.run(async () => {
    const whole = await clearPicture(path, meta).catch(() => {
      throw damaged();
    });
    if (isOpaque(whole)) return undefined;
    const cut = cutToBody(whole, LIMITS.plateSide);
    if (!cut) {
      throw new AppError(
        422,
        'nothing-there',
        'The picture is clear all over: nothing of it is there. Choose another.',
      );
    }
    const multiplied = isMultiplied(cut.picture);
    if (multiplied) divideOut(cut.picture);
    fillClear(cut.picture);
    const [color, coverage] = await Promise.all([colorOf(cut.picture), coverageOf(cut.picture)]);
    return { color, coverage, body: cut.body, ...(multiplied && { note: MULTIPLIED }) };
  });
}

/** All of a picture, upright, in codes of sRGB. */
async function clearPicture(path: string, { depth, icc }: Metadata): Promise<ClearPicture> {
  const deep = depth !== 'uchar';
  // The package turns 16 bits by their profile into Display P3: those that are sRGB are left alone, others turned once more.
  const isTurned = deep && icc !== undefined && !saysSrgb(icc);
  const picture = sharp(path, {
    ...{ limitInputPixels: LIMITS.platePixels, failOn: 'truncated' },
    ignoreIcc: deep && !isTurned,
  })
    .autoOrient()
    .toColourspace(deep ? 'rgb16' : 'srgb')
    .ensureAlpha();
  if (isTurned) picture.withIccProfile('srgb');
  const { data, info } = await picture
    .raw({ depth: deep ? 'ushort' : 'uchar' })
    .toBuffer({ resolveWithObject: true });
  const { width, height } = info;
  return {
    ...{ width, height, full: deep ? 65535 : 255 },
    data: deep ? new Uint16Array(data.buffer, data.byteOffset, data.byteLength / 2) : data,
  };
}

/** The colours of a picture as a PNG. */
function colorOf({ data, width, height, full }: ClearPicture): Promise<Buffer> {
  const deep = full > 255;
  const out = deep ? new Uint16Array(3 * width * height) : new Uint8Array(3 * width * height);
  for (let i = 0, k = 0; i < data.length; i += 4, k += 3) {
    out[k] = data[i];
    out[k + 1] = data[i + 1];
    out[k + 2] = data[i + 2];
  }
  const picture = sharp(out, { raw: { width, height, channels: 3 } });
  return (deep ? picture.toColourspace('rgb16') : picture)
    .png({ compressionLevel: width * height > LARGE ? 1 : 6 })
    .toBuffer();
}

/** The coverage of a picture as a grey PNG of 8 bits, of as many pixels as are kept of one. */
function coverageOf({ data, width, height, full }: ClearPicture): Promise<Buffer> {
  const grey = new Uint8Array(width * height);
  for (let i = 0; i < grey.length; i++) grey[i] = (data[4 * i + 3] * 255) / full + 0.5;
  const scale = Math.min(1, Math.sqrt(ALPHA_PIXELS / (width * height)));
  const [wide, high] = [width, height].map((side) => Math.max(1, Math.floor(side * scale)));
  return sharp(grey, { raw: { width, height, channels: 1 } })
    .resize(wide, high, { fit: 'fill' })
    .toColourspace('b-w')
    .png({ compressionLevel: 6 })
    .toBuffer();
}
