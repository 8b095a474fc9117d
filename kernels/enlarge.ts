/* A small picture looked at between its pixels, over a region at another scale. */
import { PART } from './generated';
import { begin, ready, seenAt } from './small';

/**
 * Rows of a region of `width` by `rows` from a small picture. With a `share` of 0 or more `out` is `own` but for that share of it, and of the
 * small picture as much (`spreadLight` of src/core/lens/veil.ts). With -1 `own` times the small picture is added to `out`. `small`: see SMALL
 * in src/engine/kernels/layout.ts; `lines`: room for its two lines.
 */
export function enlargeRows(
  out: usize,
  own: usize,
  small: usize,
  share: f32,
  width: i32,
  rows: i32,
  lines: usize,
): void {
  const shares = f32x4.splat(share);
  const adds = share < 0;
  for (let first = 0; first < width; first += PART) {
    const count = min<i32>(PART, width - first);
    const fours = count & ~3;
    begin(small, 1, lines);
    for (let y = 0; y < rows; y++) {
      ready(small, y, first, count);
      const row = <usize>(y * width + first) << 2;
      for (let x = 0; x < fours; x += 4) {
        const at = row + (<usize>x << 2);
        const glow = seenAt(small, <usize>x << 2);
        const there = v128.load(own + at);
        v128.store(
          out + at,
          adds
            ? f32x4.add(v128.load(out + at), f32x4.mul(there, glow))
            : f32x4.add(there, f32x4.mul(shares, f32x4.sub(glow, there))),
        );
      }
      for (let x = fours; x < count; x++) {
        const at = row + (<usize>x << 2);
        const glow = f32x4.extract_lane(seenAt(small, <usize>x << 2), 0);
        const there = load<f32>(own + at);
        store<f32>(out + at, adds ? load<f32>(out + at) + there * glow : there + share * (glow - there));
      }
    }
  }
}
