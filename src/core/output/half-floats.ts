/** The largest half float, as its bits: 65504. */
const LARGEST = 0x7bff;

/** By sign and exponent of a float: what its half begins with, and how far its fraction is shifted. */
const BASE = new Uint16Array(512);
const SHIFT = new Uint8Array(512);
for (let i = 0; i < 256; i++) {
  const exponent = i - 127;
  // Too small even for a half without a leading one; such a half; an ordinary one; too large.
  const [base, shift] =
    exponent < -24
      ? [0, 24]
      : exponent < -14
        ? [0x400 >> (-exponent - 14), -exponent - 1]
        : exponent <= 15
          ? [(exponent + 15) << 10, 13]
          : [LARGEST, 24];
  BASE[i] = base;
  BASE[i | 256] = base | 0x8000;
  SHIFT[i] = SHIFT[i | 256] = shift;
}

/**
 * Writes floats as half floats (IEEE 754 binary16), by tables (van der Zijp 2008, Fast Half Float Conversions). What is larger than a half
 * holds becomes the largest, what is no number 0.
 *
 * @param from first of `floats` to write; `count` of them go to `out` from `to` on
 */
export function writeHalves(
  out: Uint16Array,
  to: number,
  floats: Float32Array,
  from: number,
  count: number,
): void {
  const bits = new Uint32Array(floats.buffer, floats.byteOffset, floats.length);
  for (let i = 0; i < count; i++) {
    const word = bits[from + i];
    const high = word >>> 23;
    if ((high & 255) === 255) {
      out[to + i] = Number.isNaN(floats[from + i]) ? 0 : ((high & 256) << 7) | LARGEST;
      continue;
    }
    // Half a step of what is shifted out rounds to the nearest.
    const shift = SHIFT[high];
    const fraction = word & 0x7fffff;
    const half = BASE[high] + (fraction >> shift);
    const rounds = shift < 24 && ((fraction >> (shift - 1)) & 1) === 1 && (half & 0x7fff) < LARGEST;
    out[to + i] = half + (rounds ? 1 : 0);
  }
}
