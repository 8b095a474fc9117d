import { luminance } from '../color/luminance';
import { srgb } from '../color/srgb';

/** Display light of middle grey. */
const MIDDLE_GREY = 0.18;

/** Stops of a shown colour over middle grey; 8-bit codes. Minus infinity for black. */
export function stopsFromGrey(r: number, g: number, b: number): number {
  const light = (code: number) => srgb.decode(code / 255);
  return Math.log2(luminance([light(r), light(g), light(b)]) / MIDDLE_GREY);
}
