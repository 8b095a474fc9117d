import { srgb } from './srgb';

/** Steps of the table that turns linear light into 16-bit codes, spent along its square root. */
const STEPS = 1 << 18;

/** Linear light of each code of a sample of `most + 1` codes. */
export const linearOfCodes = (most: 255 | 65535): Float32Array =>
  Float32Array.from({ length: most + 1 }, (_, code) => srgb.decode(code / most));

/** Writes linear light as 16-bit codes of sRGB (IEC 61966-2-1), clipped to 0 and 1, of equal lengths. Off by at most one code. */
export type SrgbEncoder = (out: Uint16Array, linear: Float32Array) => void;

/** Prepares an encoder by a table. */
export function createSrgbEncoder(): SrgbEncoder {
  const codes = new Uint16Array(STEPS + 1);
  for (let i = 0; i <= STEPS; i++) codes[i] = Math.round(65535 * srgb.encode((i / STEPS) ** 2));
  return (out, linear) => {
    for (let i = 0; i < out.length; i++) {
      const light = linear[i] < 0 ? 0 : linear[i] > 1 ? 1 : linear[i];
      out[i] = codes[(Math.sqrt(light) * STEPS + 0.5) | 0];
    }
  };
}
