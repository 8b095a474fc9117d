/* The film from light to display codes, four pixels at a time. The same as src/core/film/develop-light.ts. */
import { clamped, develop as curve, luminance, ONE, splatAt } from './film';

/** Adding 2^23 leaves a float's nearest whole number in its low mantissa bits. */
const WHOLE = f32x4.splat(8388608);
const LOW_BITS = i32x4.splat(0x7fffff);

@inline
function steps(display: v128, last: v128): v128 {
  const held = clamped(display);
  return v128.and(f32x4.add(f32x4.mul(f32x4.sqrt(held), last), WHOLE), LOW_BITS);
}

@inline
function put(out: usize, codes: usize, r: i32, g: i32, b: i32): void {
  const red = <u32>load<u8>(codes + r);
  const green = <u32>load<u8>(codes + g);
  const blue = <u32>load<u8>(codes + b);
  store<u32>(out, red | (green << 8) | (blue << 16) | 0xff000000);
}

/**
 * Develops `count` pixels, at least 4; the last ones are done twice where it is no multiple of 4. `out`: RGBA bytes. `params`: toe, inset.
 * `codes`: `codeSteps` bytes.
 */
export function develop(
  out: usize,
  red: usize,
  green: usize,
  blue: usize,
  params: usize,
  codes: usize,
  codeSteps: i32,
  count: i32,
): void {
  const toe = splatAt(params, 0);
  const inset = splatAt(params, 4);
  const keep = f32x4.sub(ONE, inset);
  const perKeep = f32x4.div(ONE, keep);
  const last = f32x4.splat(<f32>(codeSteps - 1));
  let i = 0;
  while (i < count) {
    if (i > count - 4) i = count - 4;
    const at = <usize>i << 2;
    const r = v128.load(red + at);
    const g = v128.load(green + at);
    const b = v128.load(blue + at);
    const into = f32x4.mul(inset, luminance(r, g, b));
    const filmR = curve(f32x4.add(f32x4.mul(keep, r), into), toe);
    const filmG = curve(f32x4.add(f32x4.mul(keep, g), into), toe);
    const filmB = curve(f32x4.add(f32x4.mul(keep, b), into), toe);
    const back = f32x4.mul(inset, luminance(filmR, filmG, filmB));
    const stepR = steps(f32x4.mul(f32x4.sub(filmR, back), perKeep), last);
    const stepG = steps(f32x4.mul(f32x4.sub(filmG, back), perKeep), last);
    const stepB = steps(f32x4.mul(f32x4.sub(filmB, back), perKeep), last);
    const target = out + at;
    put(target, codes, i32x4.extract_lane(stepR, 0), i32x4.extract_lane(stepG, 0), i32x4.extract_lane(stepB, 0));
    put(target + 4, codes, i32x4.extract_lane(stepR, 1), i32x4.extract_lane(stepG, 1), i32x4.extract_lane(stepB, 1));
    put(target + 8, codes, i32x4.extract_lane(stepR, 2), i32x4.extract_lane(stepG, 2), i32x4.extract_lane(stepB, 2));
    put(target + 12, codes, i32x4.extract_lane(stepR, 3), i32x4.extract_lane(stepG, 3), i32x4.extract_lane(stepB, 3));
    i += 4;
  }
}
