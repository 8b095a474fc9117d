/* Natural logarithms, four at a time. */
import { ONE } from './film';

const FRACTION = i32x4.splat(0x7fffff);
const UNIT = i32x4.splat(0x3f800000);
const LN2 = f32x4.splat(0.69314718);
const PER_LN2 = f32x4.splat(1.44269504);

/** Natural logarithm of what is over 0, to some 1e-6: of the exponent, and of the fraction by its series in (m - 1) / (m + 1). */
@inline
export function logarithm(x: v128): v128 {
  const exponent = f32x4.convert_i32x4_s(i32x4.sub(i32x4.shr_s(x, 23), i32x4.splat(127)));
  const fraction = v128.or(v128.and(x, FRACTION), UNIT);
  const t = f32x4.div(f32x4.sub(fraction, ONE), f32x4.add(fraction, ONE));
  const t2 = f32x4.mul(t, t);
  let sum = f32x4.splat(0.22222222);
  sum = f32x4.add(f32x4.mul(sum, t2), f32x4.splat(0.28571429));
  sum = f32x4.add(f32x4.mul(sum, t2), f32x4.splat(0.4));
  sum = f32x4.add(f32x4.mul(sum, t2), f32x4.splat(0.66666667));
  sum = f32x4.add(f32x4.mul(sum, t2), f32x4.splat(2));
  return f32x4.add(f32x4.mul(exponent, LN2), f32x4.mul(sum, t));
}

/** Logarithm to the base of 2, of what is over 0. */
@inline
export function binaryLogarithm(x: v128): v128 {
  return f32x4.mul(PER_LN2, logarithm(x));
}
