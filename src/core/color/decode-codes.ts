import type { RgbPlanes } from '../plane/plane';

/**
 * Takes interleaved 16-bit codes of sRGB to planes of linear light.
 *
 * @param decoded from `linearOfCodes(65535)`
 * @param first pixel of the codes that the planes begin with
 */
export function decodeCodes(
  { r, g, b }: Pick<RgbPlanes, 'r' | 'g' | 'b'>,
  codes: Uint16Array,
  decoded: Float32Array,
  first: number,
  count: number,
): void {
  for (let i = 0, from = 3 * first; i < count; i++, from += 3) {
    r[i] = decoded[codes[from]];
    g[i] = decoded[codes[from + 1]];
    b[i] = decoded[codes[from + 2]];
  }
}
