import exifr from 'exifr';
import sharp from 'sharp';
import { AppError } from './app-error';
import { LIMITS } from './limits';

/** What is known of a plate before it is opened. Sizes are as seen, after its orientation. */
export interface PlateFacts {
  mime: string;
  width: number;
  height: number;
  /** 35 mm equivalent focal length, when the photo says so. */
  lens?: number;
}

const FORMATS: Record<string, string> = { jpeg: 'image/jpeg', png: 'image/png', webp: 'image/webp' };

/**
 * Checks that a file is a picture that can be a plate, by decoding all of it. Throws an AppError that says what is
 * wrong with it.
 */
export async function inspectPlate(path: string, bytes: number): Promise<PlateFacts> {
  if (bytes === 0)
    throw new AppError(400, 'empty', 'The file is empty. Copy the photo again and drop it once more.');
  const meta = await sharp(path, { limitInputPixels: false })
    .metadata()
    .catch(() => undefined);
  const mime = meta?.format ? FORMATS[meta.format] : undefined;
  if (!meta || !mime) {
    throw new AppError(
      415,
      'not-a-picture',
      'This file is not a picture that Sundew reads. Drop a JPEG, PNG or WebP.',
    );
  }
  const { width, height } = meta.autoOrient;
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
  await sharp(path, { failOn: 'truncated', limitInputPixels: LIMITS.platePixels })
    .stats()
    .catch(() => {
      throw new AppError(
        422,
        'damaged',
        'The picture is damaged or cut short. Copy it again from where it came from.',
      );
    });
  return { mime, width, height, lens: await focalLength(path) };
}

async function focalLength(path: string): Promise<number | undefined> {
  const tags = (await exifr.parse(path, ['FocalLengthIn35mmFormat']).catch(() => undefined)) as
    { FocalLengthIn35mmFormat?: number } | undefined;
  const lens = tags?.FocalLengthIn35mmFormat;
  return typeof lens === 'number' && lens >= 10 && lens <= 400 ? lens : undefined;
}
