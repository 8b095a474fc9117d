/* Angles of places, four at a time. */

const ZERO = f32x4.splat(0);
const ONE = f32x4.splat(1);

/** atan on [0, 1], odd minimax polynomial; error under 2e-6 (after Abramowitz and Stegun 1964, 4.4.49). */
@inline
function atanUnit(q: v128): v128 {
  const s = f32x4.mul(q, q);
  let p = f32x4.splat(0.0028662257);
  p = f32x4.add(f32x4.mul(p, s), f32x4.splat(-0.0161657367));
  p = f32x4.add(f32x4.mul(p, s), f32x4.splat(0.0429096138));
  p = f32x4.add(f32x4.mul(p, s), f32x4.splat(-0.0752896400));
  p = f32x4.add(f32x4.mul(p, s), f32x4.splat(0.1065626393));
  p = f32x4.add(f32x4.mul(p, s), f32x4.splat(-0.1420889944));
  p = f32x4.add(f32x4.mul(p, s), f32x4.splat(0.1999355085));
  p = f32x4.add(f32x4.mul(p, s), f32x4.splat(-0.3333314528));
  p = f32x4.add(f32x4.mul(p, s), ONE);
  return f32x4.mul(p, q);
}

/** Angle of (x, y) for y >= 0, in [0, pi]. */
@inline
export function angle(y: v128, x: v128): v128 {
  const across = f32x4.abs(x);
  const steep = f32x4.gt(y, across);
  const least = v128.bitselect(across, y, steep);
  const most = v128.bitselect(y, across, steep);
  let a = atanUnit(f32x4.div(least, f32x4.pmax(f32x4.splat(1e-30), most)));
  a = v128.bitselect(f32x4.sub(f32x4.splat(1.5707963268), a), a, steep);
  return v128.bitselect(f32x4.sub(f32x4.splat(3.1415926536), a), a, f32x4.lt(x, ZERO));
}
