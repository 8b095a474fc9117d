import exifr from 'exifr';
import sharp, { type Metadata } from 'sharp';
import type { ColorProfile } from '@/core/color/color-profile';
import { AppError } from '../http/app-error';
import { damaged, decodeCodes, type PictureCodes } from './decode-codes';
import type { ReadProfile } from './decode-job';
import { decodeOnThread } from './decode-thread';
import { readHead } from './read-head';
import { LIMITS } from '../http/limits';

/** What is known of a plate. Sizes are as seen, after its orientation. */
export interface PlateFacts {
  mime: string;
  width: number;
  height: number;
  /** 35 mm equivalent focal length, when the photo says so. */
  lens?: number;
}

/** A whole plate as interleaved RGB, codes of 8 or of 16 bits: of sRGB, or of a profile of curves and a matrix. */
export interface PlatePicture extends PictureCodes {
  colors?: ColorProfile;
}

/** A plate, decoded. */
export interface OpenedPlate {
  facts: PlateFacts;
  picture: PlatePicture;
  /** What a person should know of how it was read. */
  note?: string;
}

const RAW = 'image/x-raw';
const FORMATS: Record<string, string> = {
  jpeg: 'image/jpeg',
  png: 'image/png',
  webp: 'image/webp',
  tiff: 'image/tiff',
  heif: 'image/avif',
};

/** Whether a plate is a camera's raw file. */
export const isRaw = ({ mime }: Pick<PlateFacts, 'mime'>): boolean => mime === RAW;

interface PhotoTags {
  FocalLengthIn35mmFormat?: number;
  Make?: string;
  DNGVersion?: unknown;
}

const notAPicture = () =>
  new AppError(
    415,
    'not-a-picture',
    'This file is not a picture that Sundew reads. Drop a JPEG, PNG, WebP, AVIF, TIFF, DNG or a camera’s raw file.',
  );

/**
 * Opens a file as a plate, decoding all of it. Throws an AppError that says what is wrong with it: not a picture, too many
 * pixels or too few, or damaged.
 */
export async function openPlate(path: string, bytes: number): Promise<OpenedPlate> {
  if (bytes === 0)
    throw new AppError(400, 'empty', 'The file is empty. Copy the photo again and drop it once more.');
  const meta = await sharp(path, { limitInputPixels: false })
    .metadata()
    .catch(() => undefined);
  const tags = await readTags(path);
  const lens = lensOf(tags);
  // Raw files are TIFFs of a camera or nothing that a common decoder knows; only LibRaw can tell.
  if (!meta || (meta.format === 'tiff' && (tags.Make !== undefined || tags.DNGVersion !== undefined))) {
    const picture = await decodeOnThread('raw', { path }).catch(() => undefined);
    if (picture) {
      checkSize(picture.width, picture.height);
      return { facts: { mime: RAW, width: picture.width, height: picture.height, lens }, picture };
    }
  }
  const mime = meta && !(meta.format === 'heif' && meta.compression !== 'av1') && FORMATS[meta.format];
  if (!meta) throw (await beginsLikePicture(path)) ? damaged() : notAPicture();
  if (!mime) throw notAPicture();
  const { width, height } = meta.autoOrient;
  checkSize(width, height);
  return { facts: { mime, width, height, lens }, ...(await decodePicture(path, meta)) };
}

/** How files of the pictures that Sundew reads begin: JPEG, PNG, WebP, TIFF either way round, AVIF. */
const BEGINNINGS = [/^\xff\xd8\xff/, /^\x89PNG/, /^RIFF....WEBP/s, /^II\*\0/, /^MM\0\*/, /^....ftypavi/s];

async function beginsLikePicture(path: string): Promise<boolean> {
  const head = (await readHead(path, 16)).toString('latin1');
  return BEGINNINGS.some((beginning) => beginning.test(head));
}

const TAGS = ['FocalLengthIn35mmFormat', 'Make', 'DNGVersion'];

/** A reader of tags, and its file, which it leaves open where it finds nothing that it knows. */
interface TagReader {
  file?: { close?: () => Promise<void> };
  read: (path: string) => Promise<void>;
  parse: () => Promise<PhotoTags | undefined>;
}

/** The package's own class; its types name it only beside the default export that Node sees. */
const { Exifr } = exifr as unknown as { Exifr: new (tags: string[]) => TagReader };

async function readTags(path: string): Promise<PhotoTags> {
  const reader = new Exifr(TAGS);
  try {
    await reader.read(path);
    return (await reader.parse()) ?? {};
  } catch {
    return {};
  } finally {
    await reader.file?.close?.();
  }
}

/** The 35 mm equivalent focal length that a photo names. */
export const readLens = async (path: string): Promise<number | undefined> => lensOf(await readTags(path));

function lensOf({ FocalLengthIn35mmFormat: lens }: PhotoTags): number | undefined {
  return typeof lens === 'number' && lens >= 10 && lens <= 400 ? lens : undefined;
}

/** Checks that a picture is neither too large nor too small. Throws an AppError. */
export function checkSize(width: number, height: number): void {
  if (width * height > LIMITS.platePixels) {
    const size = `${Math.ceil((width * height) / 1e6)} megapixels`;
    throw new AppError(
      413,
      'too-many-pixels',
      `The picture has ${size}; Sundew takes up to 100. Save it smaller.`,
    );
  }
  if (Math.min(width, height) < LIMITS.plateSide) {
    const least = LIMITS.plateSide;
    throw new AppError(
      422,
      'too-small',
      `The picture is ${width} x ${height}. It needs at least ${least} pixels each way.`,
    );
  }
}

/** Said of a photo whose colours could not be read as it meant them. */
const BROKEN_PROFILE = 'The photo’s colour profile is broken, so its colours are taken as sRGB.';

/**
 * Decodes a picture that common decoders know, in codes of its own: how they stand for light is read from its profile on a thread,
 * meanwhile. Only a profile of tables needs every pixel converted.
 */
async function decodePicture(path: string, meta: Metadata): Promise<Omit<OpenedPlate, 'facts'>> {
  if (meta.space === 'cmyk') return { picture: await decodeCodes(path, false, false) };
  const deep = meta.depth !== 'uchar' || (meta.bitsPerSample ?? 8) > 8;
  const profile = meta.icc && !saysSrgb(meta.icc) ? meta.icc : undefined;
  const [codes, read] = await Promise.all([decodeCodes(path, deep), profile && readProfile(profile, deep)]);
  if (!read || !profile) return { picture: codes };
  if (read === 'broken') return { picture: codes, note: BROKEN_PROFILE };
  if (read.colors !== 'tables') return { picture: { ...codes, colors: read.colors } };
  return { picture: await decodeOnThread('convert', { path, profile, deep }) };
}

const readProfile = (profile: Uint8Array, deep: boolean): Promise<ReadProfile | 'broken'> =>
  decodeOnThread('profile', { profile, codes: deep ? 65536 : 256 }).catch(() => 'broken' as const);

/** Whether a profile is one of the many copies of sRGB, by its own description. */
export function saysSrgb(profile: Uint8Array): boolean {
  const text = Buffer.from(profile).toString('latin1');
  return text.includes('sRGB') || text.includes('s\0R\0G\0B');
}
