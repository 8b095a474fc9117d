/* Codes of pictures and their light: rows of a picture that is shrunk, and sRGB. The same as src/core/plane/area-shrink.ts, 32-bit. */
import { clamped, ZERO } from './film';
import { exponential } from './line-coverage';
import { logarithm } from './logarithm';

/** sRGB, IEC 61966-2-1: up to `LINEAR` a line, from there on a power. */
const LINEAR = f32x4.splat(0.0031308);
const SLOPE = f32x4.splat(12.92);
const PER_POWER = f32x4.splat(1 / 2.4);
const SCALE = f32x4.splat(1.055);
const SHIFT = f32x4.splat(0.055);
const MOST = f32x4.splat(65535);
const HALF = f32x4.splat(0.5);

/** Light of a code by a curve. */
@inline
function lightOf(curve: usize, code: usize): f32 {
  return load<f32>(curve + (code << 2));
}

/** Takes a row of `pixels` interleaved codes of a byte to light, by a curve a channel. */
export function lightOfBytes(out: usize, codes: usize, red: usize, green: usize, blue: usize, pixels: i32): void {
  for (let x = 0; x < pixels; x++, codes += 3, out += 12) {
    store<f32>(out, lightOf(red, load<u8>(codes)));
    store<f32>(out + 4, lightOf(green, load<u8>(codes + 1)));
    store<f32>(out + 8, lightOf(blue, load<u8>(codes + 2)));
  }
}

/** The same of codes of 16 bits. */
export function lightOfWords(out: usize, codes: usize, red: usize, green: usize, blue: usize, pixels: i32): void {
  for (let x = 0; x < pixels; x++, codes += 6, out += 12) {
    store<f32>(out, lightOf(red, load<u16>(codes)));
    store<f32>(out + 4, lightOf(green, load<u16>(codes + 2)));
    store<f32>(out + 8, lightOf(blue, load<u16>(codes + 4)));
  }
}

/** Takes `count` interleaved codes of 16 bits to planes of light, all by one curve. */
export function lightOfCodes(r: usize, g: usize, b: usize, codes: usize, curve: usize, count: i32): void {
  for (let at: usize = 0, end = <usize>count << 2; at < end; at += 4, codes += 6) {
    store<f32>(r + at, lightOf(curve, load<u16>(codes)));
    store<f32>(g + at, lightOf(curve, load<u16>(codes + 2)));
    store<f32>(b + at, lightOf(curve, load<u16>(codes + 4)));
  }
}

/** Adds a share of a row of `count` floats to another; both have room for whole fours. */
export function addShare(out: usize, row: usize, share: f32, count: i32): void {
  const factor = f32x4.splat(share);
  for (let i = 0; i < count; i += 4, out += 16, row += 16)
    v128.store(out, f32x4.add(v128.load(out), f32x4.mul(factor, v128.load(row))));
}

/**
 * Averages a row of interleaved light along itself: each of `pixels` covers some of the row's, from `first` on, with weights from `begin` on.
 * `out` and the row have room for a float more.
 */
export function narrowRow(out: usize, row: usize, first: usize, begin: usize, weights: usize, pixels: i32): void {
  for (let x = 0; x < pixels; x++, out += 12, first += 4, begin += 4) {
    let at = row + 12 * <usize>load<u32>(first);
    let weight = weights + (<usize>load<u32>(begin) << 2);
    const end = weights + (<usize>load<u32>(begin + 4) << 2);
    let sum = ZERO;
    for (; weight < end; weight += 4, at += 12)
      sum = f32x4.add(sum, f32x4.mul(v128.load32_splat(weight), v128.load(at)));
    v128.store(out, sum);
  }
}

/** Writes light as 16-bit codes of sRGB, clipped to 0 and 1; `count` in whole fours. */
export function encodeLight(out: usize, light: usize, count: i32): void {
  for (let i = 0; i < count; i += 4, out += 8, light += 16) {
    const own = clamped(v128.load(light));
    const power = exponential(f32x4.mul(PER_POWER, logarithm(f32x4.pmax(LINEAR, own))));
    const bent = f32x4.sub(f32x4.mul(SCALE, power), SHIFT);
    const code = v128.bitselect(f32x4.mul(SLOPE, own), bent, f32x4.le(own, LINEAR));
    const whole = i32x4.trunc_sat_f32x4_u(f32x4.add(HALF, f32x4.mul(MOST, code)));
    v128.store64_lane(out, i16x8.narrow_i32x4_u(whole, whole), 0);
  }
}

/** Spreads `count` codes of a byte over 16 bits, in whole sixteens. */
export function widenCodes(out: usize, codes: usize, count: i32): void {
  for (let i = 0; i < count; i += 16, out += 32, codes += 16) {
    const own = v128.load(codes);
    v128.store(out, i8x16.shuffle(own, own, 0, 0, 1, 1, 2, 2, 3, 3, 4, 4, 5, 5, 6, 6, 7, 7));
    v128.store(out + 16, i8x16.shuffle(own, own, 8, 8, 9, 9, 10, 10, 11, 11, 12, 12, 13, 13, 14, 14, 15, 15));
  }
}
