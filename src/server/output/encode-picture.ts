import sharp, { type Sharp } from 'sharp';
import { displayP3Codes } from '@/core/color/display-p3';
import { OUTPUT_FORMATS, type OutputChoice } from '@/core/output/output-formats';
import { exifOf, xmpOf, type ToldFacts } from '@/core/output/photo-facts';
import type { Size } from '@/engine/sizes';
import { profileOf } from './colour-profile';
import { colouredTiff } from './coloured-tiff';
import type { RgbCodes } from './render-picture';

/** Sharpening for the size: the radius of its blur in pixels, and its strength at edges when it is at its full. Flats keep their grain. */
const SHARPEN = { sigma: 0.7, m1: 0, m2: 4 } as const;

/**
 * Codes with their profile. The package turns 8 bits into a profile's codes. It would take 16 bits for Display P3 and turn them too, with
 * an error that shows: those are turned here, and come with their profile as from a file, which leaves them alone.
 */
async function coloured(
  rgb: RgbCodes,
  size: Size,
  { format, colours = 'srgb' }: OutputChoice,
): Promise<Sharp> {
  const raw = { raw: { ...size, channels: 3 as const } };
  if ('isLinear' in OUTPUT_FORMATS[format]) return sharp(rgb, raw).toColourspace('scrgb');
  if (rgb instanceof Uint8Array) return sharp(rgb, raw).withIccProfile(colours);
  if (colours === 'p3') displayP3Codes(rgb, rgb);
  const file = colouredTiff(rgb, size, await profileOf(colours));
  return sharp(file, { limitInputPixels: false }).keepIccProfile().toColourspace('rgb16');
}

/** Writes a raw picture in sRGB codes in a format, with what it says of itself. Codes of 16 bits may be turned in place. */
export async function encodePicture(
  rgb: RgbCodes,
  size: Size,
  choice: OutputChoice,
  told?: ToldFacts,
): Promise<Buffer> {
  const { sharpen = 0 } = choice;
  const plain = await coloured(rgb, size, choice);
  if (sharpen > 0) plain.sharpen({ ...SHARPEN, m2: SHARPEN.m2 * sharpen });
  if (told) plain.withExif(exifOf(told)).withXmp(xmpOf(told));
  return inFormat(plain, choice).toBuffer();
}

function inFormat(picture: Sharp, { format, quality }: OutputChoice): Sharp {
  switch (format) {
    case 'jpeg':
      return picture.jpeg({ quality, chromaSubsampling: '4:4:4' });
    case 'webp':
      return picture.webp({ quality, smartSubsample: true });
    case 'avif':
      return picture.avif({ quality, chromaSubsampling: '4:4:4', effort: 4 });
    case 'avif10':
      return picture.avif({ quality, chromaSubsampling: '4:4:4', effort: 4, bitdepth: 10 });
    case 'tiff':
      return picture.tiff({ compression: 'deflate', predictor: 'horizontal' });
    case 'tiff32':
      return picture.tiff({ compression: 'deflate', predictor: 'float' });
    default:
      return picture.png({ compressionLevel: 6 });
  }
}
