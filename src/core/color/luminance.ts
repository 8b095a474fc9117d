import type { Rgb } from './rgb';

/** Weights of linear sRGB in relative luminance (ITU-R BT.709). They add up to 1. */
export const LUMINANCE: Rgb = [0.2126, 0.7152, 0.0722];

/** Relative luminance of a linear sRGB colour. */
export function luminance([r, g, b]: Rgb): number {
  return LUMINANCE[0] * r + LUMINANCE[1] * g + LUMINANCE[2] * b;
}

/** The same colour scaled to luminance 1. A colour without light becomes white. */
export function unitLuminance(color: Rgb): Rgb {
  const y = luminance(color);
  return y > 0 ? [color[0] / y, color[1] / y, color[2] / y] : [1, 1, 1];
}
