import { createSrgbEncoder, linearOfCodes } from './srgb-codes';

/** Linear light of sRGB's primaries in those of Display P3, both with the white D65 (IEC 61966-2-1, SMPTE EG 432-1); rows sum to 1. */
const TO_P3 = [
  [0.8224621, 0.1775379, 0],
  [0.0331942, 0.9668058, 0],
  [0.0170827, 0.0723974, 0.9105199],
] as const;

/** Codes that are turned at a time. */
const CHUNK = 3 * 4096;

/**
 * Turns codes of sRGB into those of the same colours in Display P3, which has the same curve. All of sRGB lies within it: nothing is clipped.
 * Off by at most one code.
 *
 * @param out 3 * pixels, interleaved RGB codes of 16 bits
 * @param codes the same in sRGB; may be `out`
 */
export function displayP3Codes(out: Uint16Array, codes: Uint16Array): void {
  const decoded = linearOfCodes(65535);
  const encode = createSrgbEncoder();
  const linear = new Float32Array(CHUNK);
  for (let first = 0; first < codes.length; first += CHUNK) {
    const count = Math.min(CHUNK, codes.length - first);
    for (let i = 0; i < count; i += 3) {
      const r = decoded[codes[first + i]];
      const g = decoded[codes[first + i + 1]];
      const b = decoded[codes[first + i + 2]];
      for (let c = 0; c < 3; c++) linear[i + c] = TO_P3[c][0] * r + TO_P3[c][1] * g + TO_P3[c][2] * b;
    }
    encode(out.subarray(first, first + count), linear.subarray(0, count));
  }
}
