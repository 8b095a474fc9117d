/* The film, four values at a time. The same as src/core/film/film-response.ts. */
import { LUMINANCE_B, LUMINANCE_G, LUMINANCE_R } from './generated';

/** Weights of linear sRGB in luminance. */
export const WR = f32x4.splat(LUMINANCE_R);
export const WG = f32x4.splat(LUMINANCE_G);
export const WB = f32x4.splat(LUMINANCE_B);

export const ZERO = f32x4.splat(0);
export const ONE = f32x4.splat(1);
const HALF = f32x4.splat(0.5);
const FOUR = f32x4.splat(4);

/** No less than 0 and no more than 1. */
@inline
export function clamped(value: v128): v128 {
  return f32x4.pmin(ONE, f32x4.pmax(ZERO, value));
}

@inline
export function splatAt(at: usize, offset: usize): v128 {
  return v128.load32_splat(at + offset);
}

@inline
export function luminance(r: v128, g: v128, b: v128): v128 {
  return f32x4.add(f32x4.add(f32x4.mul(WR, r), f32x4.mul(WG, g)), f32x4.mul(WB, b));
}

@inline
export function develop(light: v128, toe: v128): v128 {
  const x = f32x4.pmax(ZERO, light);
  // y / sqrt(1 + y^2) with y = a / b, without the inner division.
  const a = f32x4.mul(x, x);
  const b = f32x4.add(x, toe);
  return f32x4.div(a, f32x4.sqrt(f32x4.add(f32x4.mul(a, a), f32x4.mul(b, b))));
}

@inline
export function undevelop(display: v128, toe: v128, brightest: v128): v128 {
  const d = f32x4.pmin(brightest, f32x4.pmax(ZERO, display));
  const y = f32x4.div(d, f32x4.sqrt(f32x4.sub(ONE, f32x4.mul(d, d))));
  const root = f32x4.sqrt(f32x4.add(f32x4.mul(y, y), f32x4.mul(FOUR, f32x4.mul(y, toe))));
  return f32x4.mul(HALF, f32x4.add(y, root));
}
