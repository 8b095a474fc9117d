import sharp, { type Sharp } from 'sharp';
import type { Scene } from '@/core/scene/schema';
import type { Region } from '@/core/plane/region';
import type { Renderer } from '@/engine/renderer';

/** Rows of a picture that are made at a time: bounds the memory of an output of any size. */
const BAND_ROWS = 256;

export type OutputFormat = 'jpeg' | 'png';

/** How a finished picture is written. */
export interface OutputChoice {
  format: OutputFormat;
  /** 1 to 100; for JPEG. */
  quality: number;
}

/** A finished picture as raw RGB bytes, made band by band. `onProgress` gets 0 to 1. */
export async function renderRgb(
  renderer: Renderer,
  scene: Scene,
  size: { width: number; height: number },
  signal: AbortSignal,
  onProgress: (done: number) => void = () => {},
): Promise<Uint8Array> {
  const rgb = new Uint8Array(3 * size.width * size.height);
  for (let top = 0; top < size.height; top += BAND_ROWS) {
    const height = Math.min(BAND_ROWS, size.height - top);
    const region: Region = {
      fullWidth: size.width,
      fullHeight: size.height,
      left: 0,
      top,
      width: size.width,
      height,
    };
    await renderer.frame({ scene, region }, signal, (pixels) => {
      let to = 3 * top * size.width;
      for (let from = 0; from < pixels.length; from += 4) {
        rgb[to++] = pixels[from];
        rgb[to++] = pixels[from + 1];
        rgb[to++] = pixels[from + 2];
      }
    });
    onProgress((top + height) / size.height);
  }
  return rgb;
}

/** A raw picture ready to be written in a format, with an sRGB profile. */
export function encodePicture(
  rgb: Uint8Array,
  size: { width: number; height: number },
  { format, quality }: OutputChoice,
): Sharp {
  const picture = sharp(rgb, { raw: { ...size, channels: 3 } }).withIccProfile('srgb');
  return format === 'jpeg'
    ? picture.jpeg({ quality, chromaSubsampling: '4:4:4' })
    : picture.png({ compressionLevel: 6 });
}
