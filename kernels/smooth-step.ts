/* Smooth steps, four at a time. The same as `smoothStep` of src/core/plane/smooth-step.ts, 32-bit. */
import { clamped } from './film';

const TWO = f32x4.splat(2);
const THREE = f32x4.splat(3);

@inline
export function smoothStep(from: f32, to: f32, value: v128): v128 {
  const t = clamped(f32x4.mul(f32x4.sub(value, f32x4.splat(from)), f32x4.splat(1 / (to - from))));
  return f32x4.mul(f32x4.mul(t, t), f32x4.sub(THREE, f32x4.mul(TWO, t)));
}
