/* How what fades falls off, four values at a time. */
import { ONE } from './film';

const LOG2E = f32x4.splat(1.44269504);
const DEEPEST = f32x4.splat(126);

/** exp(-x) for x at or above 0, to some 1e-7: the whole part in the exponent, the rest by its Taylor series. */
@inline
export function fading(x: v128): v128 {
  const power = f32x4.pmin(DEEPEST, f32x4.mul(x, LOG2E));
  const whole = f32x4.ceil(power);
  const rest = f32x4.mul(f32x4.sub(whole, power), f32x4.splat(0.69314718));
  let sum = f32x4.splat(0.00019841);
  sum = f32x4.add(f32x4.mul(sum, rest), f32x4.splat(0.00138889));
  sum = f32x4.add(f32x4.mul(sum, rest), f32x4.splat(0.00833333));
  sum = f32x4.add(f32x4.mul(sum, rest), f32x4.splat(0.04166667));
  sum = f32x4.add(f32x4.mul(sum, rest), f32x4.splat(0.16666667));
  sum = f32x4.add(f32x4.mul(sum, rest), f32x4.splat(0.5));
  sum = f32x4.add(f32x4.mul(sum, rest), ONE);
  sum = f32x4.add(f32x4.mul(sum, rest), ONE);
  const exponent = i32x4.shl(i32x4.sub(i32x4.splat(127), i32x4.trunc_sat_f32x4_s(whole)), 23);
  return f32x4.mul(sum, exponent);
}
