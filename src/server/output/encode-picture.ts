import sharp, { type Sharp } from 'sharp';
import { displayP3Codes } from '@/core/color/display-p3';
import { OUTPUT_FORMATS, type OutputChoice } from '@/core/output/output-formats';
import { exifOf, xmpOf, type ToldFacts } from '@/core/output/photo-facts';
import type { Size } from '@/engine/sizes';
import type { RgbCodes } from './render-picture';

/** Sharpening for the size: the radius of its blur in pixels, and its strength at edges when it is at its full. Flats keep their grain. */
const SHARPEN = { sigma: 0.7, m1: 0, m2: 4 } as const;

/**
 * Codes with their profile. The package turns 8 bits into a profile's codes, while on 16 it only attaches the profile: those have been
 * turned before.
 */
function coloured(picture: Sharp, { format, colours }: OutputChoice): Sharp {
  if ('isLinear' in OUTPUT_FORMATS[format]) return picture.toColourspace('scrgb');
  const isDeep = OUTPUT_FORMATS[format].bits === 16;
  return (isDeep ? picture.toColourspace('rgb16') : picture).withIccProfile(colours ?? 'srgb');
}

/** Codes of 16 bits in the colours that are asked for, in place. */
function inColours(rgb: RgbCodes, { format, colours }: OutputChoice): RgbCodes {
  if (colours === 'p3' && rgb instanceof Uint16Array && !('isLinear' in OUTPUT_FORMATS[format])) {
    displayP3Codes(rgb, rgb);
  }
  return rgb;
}

/** A raw picture in sRGB codes ready to be written in a format, and what it says of itself. */
export function encodePicture(rgb: RgbCodes, size: Size, choice: OutputChoice, told?: ToldFacts): Sharp {
  const { format, quality, sharpen = 0 } = choice;
  const raw = sharp(inColours(rgb, choice), { raw: { ...size, channels: 3 } });
  const sharpened = sharpen > 0 ? raw.sharpen({ ...SHARPEN, m2: SHARPEN.m2 * sharpen }) : raw;
  const plain = coloured(sharpened, choice);
  const picture = told ? plain.withExif(exifOf(told)).withXmp(xmpOf(told)) : plain;
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
