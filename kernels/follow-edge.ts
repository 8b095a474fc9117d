/* A coverage whose edge follows the plate's, four pixels at a time. The same as `followEdge` of src/core/matte/refine-edge.ts, 32-bit. */
import { clamped, ZERO } from './film';
import { EDGE_VEIL, PART, PER_EDGE_VEIL, SMALL_BYTES } from './generated';
import { begin, readyAll, seenAt } from './small';

const VEIL = f32x4.splat(EDGE_VEIL);
const PER_VEIL = f32x4.splat(PER_EDGE_VEIL);

/** A channel of the plate as the filter saw it, by the slope of its line. */
@inline
function leaned(slope: usize, channel: usize, along: usize): v128 {
  return f32x4.mul(seenAt(slope, along), f32x4.sqrt(f32x4.pmax(ZERO, v128.load(channel))));
}

/**
 * Coverage of `rows` rows of a region of `width`, at least 4. `planes`: offsets of out, plate r, g, b. `smalls`: slopes r, g, b of the lines, and
 * their offset. `lines`: room for two lines of each small picture.
 */
export function followEdge(planes: usize, smalls: usize, lines: usize, width: i32, rows: i32): void {
  const out = load<u32>(planes);
  const plateR = load<u32>(planes + 4);
  const plateG = load<u32>(planes + 8);
  const plateB = load<u32>(planes + 12);
  for (let part = 0; part < width; part += PART) {
    // The last four of a row, or of a part, reach back over pixels that are done: they come to the same.
    const first = min<i32>(part, width - 4);
    const count = min<i32>(PART, width - first);
    begin(smalls, 4, lines);
    for (let y = 0; y < rows; y++) {
      readyAll(smalls, 4, y, first, count);
      const row = <usize>(y * width + first) << 2;
      for (let x = 0; x < count; x += 4) {
        const along = <usize>min<i32>(x, count - 4) << 2;
        const at = row + along;
        const colored = f32x4.add(
          f32x4.add(leaned(smalls, plateR + at, along), leaned(smalls + SMALL_BYTES, plateG + at, along)),
          leaned(smalls + 2 * SMALL_BYTES, plateB + at, along),
        );
        const value = f32x4.add(colored, seenAt(smalls + 3 * SMALL_BYTES, along));
        const clear = f32x4.mul(f32x4.sub(value, VEIL), PER_VEIL);
        v128.store(out + at, clamped(clear));
      }
    }
  }
}
