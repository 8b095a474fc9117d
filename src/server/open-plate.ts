import exifr from 'exifr';
import sharp, { type Metadata, type Sharp } from 'sharp';
import { AppError } from './app-error';
import { decodeOnThread } from './decode-thread';
import { LIMITS } from './limits';

/** What is known of a plate. Sizes are as seen, after its orientation. */
export interface PlateFacts {
  mime: string;
  width: number;
  height: number;
  /** 35 mm equivalent focal length, when the photo says so. */
  lens?: number;
}

/** A whole plate as interleaved RGB, sRGB codes of 8 bits, or of 16 where the file holds more or other colours. */
export interface PlatePicture {
  data: Uint8Array | Uint16Array;
  width: number;
  height: number;
}

/** A plate, decoded. */
export interface OpenedPlate {
  facts: PlateFacts;
  picture: PlatePicture;
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
    const picture = await decodeOnThread({ type: 'raw', path }).catch(() => undefined);
    if (picture) {
      checkSize(picture.width, picture.height);
      return { facts: { mime: RAW, width: picture.width, height: picture.height, lens }, picture };
    }
  }
  const mime = meta && !(meta.format === 'heif' && meta.compression !== 'av1') && FORMATS[meta.format];
  if (!meta || !mime) throw notAPicture();
  const { width, height } = meta.autoOrient;
  checkSize(width, height);
  const picture = await decodePicture(path, meta).catch(() => {
    throw new AppError(
      422,
      'damaged',
      'The picture is damaged or cut short. Copy it again from where it came from.',
    );
  });
  return { facts: { mime, width, height, lens }, picture };
}

async function readTags(path: string): Promise<PhotoTags> {
  const tags = exifr.parse(path, ['FocalLengthIn35mmFormat', 'Make', 'DNGVersion']) as Promise<
    PhotoTags | undefined
  >;
  return (await tags.catch(() => undefined)) ?? {};
}

/** The 35 mm equivalent focal length that a photo names. */
export const readLens = async (path: string): Promise<number | undefined> => lensOf(await readTags(path));

function lensOf({ FocalLengthIn35mmFormat: lens }: PhotoTags): number | undefined {
  return typeof lens === 'number' && lens >= 10 && lens <= 400 ? lens : undefined;
}

function checkSize(width: number, height: number): void {
  if (width * height > LIMITS.platePixels) {
    const size = `${Math.round((width * height) / 1e6)} megapixels`;
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

/** Decodes a picture that common decoders know. More than 8 bits, and profiles other than sRGB, are kept in 16 bits. */
async function decodePicture(path: string, meta: Metadata): Promise<PlatePicture> {
  const profile =
    meta.icc && meta.space !== 'cmyk' && meta.channels >= 3 && !saysSrgb(meta.icc) ? meta.icc : undefined;
  const deep = meta.depth !== 'uchar' || (meta.bitsPerSample ?? 8) > 8;
  const options = { failOn: 'truncated', limitInputPixels: LIMITS.platePixels } as const;
  if (!deep && !profile) {
    const { data, info } = await upright(sharp(path, options))
      .toColourspace('srgb')
      .raw()
      .toBuffer({ resolveWithObject: true });
    return { data, width: info.width, height: info.height };
  }
  // The decoder's own conversion of profiles is for 8 bits only, so the profile is put by and applied afterwards.
  const bare = upright(sharp(path, { ...options, ignoreIcc: true }));
  const { data, info } = await (
    deep ? bare.toColourspace('rgb16').raw({ depth: 'ushort' }) : bare.toColourspace('srgb').raw()
  ).toBuffer({
    resolveWithObject: true,
  });
  const { width, height } = info;
  const codes = deep
    ? new Uint16Array(data.buffer.slice(data.byteOffset, data.byteOffset + data.byteLength))
    : Uint16Array.from(data, (code) => 257 * code);
  return profile
    ? decodeOnThread({ type: 'profile', profile, data: codes, width, height })
    : { data: codes, width, height };
}

const upright = (picture: Sharp) => picture.autoOrient().flatten({ background: '#000' });

/** Whether a profile is one of the many copies of sRGB, by its own description. */
function saysSrgb(profile: Uint8Array): boolean {
  const text = Buffer.from(profile).toString('latin1');
  return text.includes('sRGB') || text.includes('s\0R\0G\0B');
}
