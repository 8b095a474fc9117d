/*
 * Evening out the day, four pixels at a time. The same as src/core/day/even-out.ts, 32-bit.
 */
import { luminance, ONE, splatAt, ZERO } from './film';
import { EVEN_BLACK, EVEN_LIFT, PART, SMALL_BYTES } from './generated';
import { coverageAt, exponential, rootOf } from './line-coverage';
import { binaryLogarithm } from './logarithm';
import { begin, readyAll, seenAt } from './small';

const BLACK = f32x4.splat(EVEN_BLACK);
const LIFT = f32x4.splat(EVEN_LIFT);

/**
 * How far each pixel of `rows` rows of a region of `width`, at least 4, would move to be level. `planes`: offsets of out, plate r, g, b.
 * `smalls`: the shading's slope and offset, the sky's slope and offset. `level`: stops. `lines`: room for two lines of each small picture.
 */
export function levelling(planes: usize, smalls: usize, level: f32, lines: usize, width: i32, rows: i32): void {
  const out = load<u32>(planes);
  const plateR = load<u32>(planes + 4);
  const plateG = load<u32>(planes + 8);
  const plateB = load<u32>(planes + 12);
  const goal = f32x4.splat(level);
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
        const shown = luminance(v128.load(plateR + at), v128.load(plateG + at), v128.load(plateB + at));
        const sky = coverageAt(
          seenAt(smalls + 2 * SMALL_BYTES, along),
          seenAt(smalls + 3 * SMALL_BYTES, along),
          rootOf(shown),
        );
        const stops = binaryLogarithm(f32x4.add(BLACK, f32x4.pmax(ZERO, shown)));
        const here = f32x4.add(f32x4.mul(seenAt(smalls, along), stops), seenAt(smalls + SMALL_BYTES, along));
        const away = f32x4.sub(goal, here);
        const moved = v128.bitselect(f32x4.mul(LIFT, away), away, f32x4.gt(away, ZERO));
        v128.store(out + at, f32x4.mul(f32x4.sub(ONE, sky), moved));
      }
    }
  }
}

/**
 * Takes a share of the shading out of `count` pixels, at least 4; `out` may be the plate. `planes`: offsets of out r, g, b, plate r, g, b, and
 * how far each pixel moves.
 */
export function evenOut(planes: usize, perStop: f32, count: i32): void {
  const stops = load<u32>(planes + 24);
  const share = f32x4.splat(perStop);
  const last = <usize>(count - 4) << 2;
  const rest = <usize>(count & 3) << 2;
  for (let at: usize = 0; at <= last; at += 4 << 2) evenFour(planes, stops, share, at);
  if (rest > 0) evenLast(planes, stops, share, last, rest);
}

@inline
function gainAt(stops: usize, share: v128, at: usize): v128 {
  return exponential(f32x4.mul(share, v128.load(stops + at)));
}

@inline
function evenFour(planes: usize, stops: usize, share: v128, at: usize): void {
  const gain = gainAt(stops, share, at);
  for (let c: usize = 0; c < 12; c += 4)
    v128.store(load<u32>(planes + c) + at, f32x4.mul(gain, v128.load(load<u32>(planes + 12 + c) + at)));
}

/** The last pixels that are no four: one by one, so that none is done twice. */
function evenLast(planes: usize, stops: usize, share: v128, last: usize, rest: usize): void {
  const gain = gainAt(stops, share, last);
  for (let lane: i32 = 0; lane < 4; lane++) {
    const at = last + (<usize>lane << 2);
    if (at < last + 16 - rest) continue;
    const own =
      lane == 1 ? f32x4.extract_lane(gain, 1) : lane == 2 ? f32x4.extract_lane(gain, 2) : f32x4.extract_lane(gain, 3);
    for (let c: usize = 0; c < 12; c += 4)
      store<f32>(load<u32>(planes + c) + at, own * load<f32>(load<u32>(planes + 12 + c) + at));
  }
}
