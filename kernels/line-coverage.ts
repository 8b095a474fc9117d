/* Coverages by guided lines, four at a time. */
import { fading } from './fading';
import { clamped, ONE, ZERO } from './film';
import { STEEP_FROM, STEEP_TO } from './generated';
import { logarithm } from './logarithm';

const THIRD = f32x4.splat(0.33333333);
const FROM = f32x4.splat(STEEP_FROM);
const PER_STEEP = f32x4.splat(1 / (STEEP_TO - STEEP_FROM));

/** exp(x). */
@inline
export function exponential(x: v128): v128 {
  const fallen = fading(f32x4.abs(x));
  return v128.bitselect(fallen, f32x4.div(ONE, fallen), f32x4.lt(x, ZERO));
}

/** The cube root of a luminance, in which lines are told. */
@inline
export function rootOf(light: v128): v128 {
  return exponential(f32x4.mul(THIRD, logarithm(f32x4.pmax(f32x4.splat(1e-30), light))));
}

/** `lineCoverageAt` of src/core/plane, for the root of a luminance. */
@inline
export function coverageAt(slope: v128, offset: v128, root: v128): v128 {
  const steep = f32x4.mul(f32x4.sub(f32x4.add(f32x4.mul(slope, root), offset), FROM), PER_STEEP);
  return clamped(steep);
}
