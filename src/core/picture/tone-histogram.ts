import { LUMINANCE } from '../color/luminance';

/** How often each code of luminance occurs in a picture. */
export interface ToneHistogram {
  /** 256 shares that add up to 1. */
  shares: Float32Array;
  /** Share of pixels of which some channel is at its end. */
  black: number;
  white: number;
}

/** Pixels that are looked at, at most. */
const SAMPLES = 20_000;

/** The histogram of display luminance of RGBA codes, 8 bits, from an even sample of the pixels. */
export function toneHistogram(codes: Uint8ClampedArray): ToneHistogram {
  const pixels = codes.length / 4;
  const step = Math.max(1, Math.floor(pixels / SAMPLES));
  const shares = new Float32Array(256);
  let [black, white, seen] = [0, 0, 0];
  for (let i = 0; i < pixels; i += step) {
    const [r, g, b] = [codes[4 * i], codes[4 * i + 1], codes[4 * i + 2]];
    shares[Math.round(LUMINANCE[0] * r + LUMINANCE[1] * g + LUMINANCE[2] * b)]++;
    if (r === 0 || g === 0 || b === 0) black++;
    if (r === 255 || g === 255 || b === 255) white++;
    seen++;
  }
  for (let k = 0; k < shares.length; k++) shares[k] /= Math.max(1, seen);
  return { shares, black: black / Math.max(1, seen), white: white / Math.max(1, seen) };
}
