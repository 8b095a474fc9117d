import sharp, { type Sharp } from 'sharp';
import { AppError } from '../http/app-error';
import { LIMITS } from '../http/limits';

/** A whole picture as interleaved RGB in codes of its own. */
export interface PictureCodes {
  data: Uint8Array | Uint16Array;
  width: number;
  height: number;
}

/** What decoders say of a file that ends before its picture does. */
const CUT = /premature end|unexpected end|truncated/i;

/** Said of what begins like a picture and cannot be read to its end. */
export const damaged = () =>
  new AppError(422, 'damaged', 'The picture is damaged or cut short. Copy it again from where it came from.');
const cutShort = () =>
  new AppError(
    422,
    'cut-short',
    'The picture is cut short: the file ends before its last rows. Copy it again from where it came from.',
  );

/** Codes of 8 bits, or of 16 where `deep`. `ignoreIcc` leaves them as the file has them. */
const codesOf = (picture: Sharp, deep: boolean) =>
  (deep
    ? upright(picture).toColourspace('rgb16').raw({ depth: 'ushort' })
    : upright(picture).toColourspace('srgb').raw()
  ).toBuffer({ resolveWithObject: true });

const upright = (picture: Sharp) => picture.autoOrient().flatten({ background: '#000' });

/**
 * Decodes a file that libvips knows, turned upright, over black where it is clear. What decoders merely complain of is passed over;
 * a file that ends too early is not. Throws an AppError that says so.
 */
export async function decodeCodes(path: string, deep: boolean, ignoreIcc = true): Promise<PictureCodes> {
  const decode = (failOn: 'warning' | 'truncated') =>
    codesOf(sharp(path, { failOn, limitInputPixels: LIMITS.platePixels, ignoreIcc }), deep);
  const { data, info } = await decode('warning').catch((error: Error) => {
    if (CUT.test(error.message)) throw cutShort();
    return decode('truncated').catch(() => {
      throw damaged();
    });
  });
  const { width, height } = info;
  return {
    data: deep ? new Uint16Array(data.buffer, data.byteOffset, data.byteLength / 2) : data,
    width,
    height,
  };
}
