/* What haze scatters of a small source, four pixels at a time. The same as src/core/light/add-point-air.ts. */
import { angle } from './angle';

/**
 * Light of a source at (px, py, pz) from the eye that the air scatters along rays, up to `reach` of their own lengths. `perRay`: one over
 * those lengths; `soft`: the source's squared radius.
 */
@inline
export function scatteredAt(
  px: v128,
  py: v128,
  pz: v128,
  rx: v128,
  ry: v128,
  rz: v128,
  perRay: v128,
  reach: v128,
  soft: v128,
  airScale: v128,
): v128 {
  const t0 = f32x4.mul(
    f32x4.add(f32x4.add(f32x4.mul(px, rx), f32x4.mul(py, ry)), f32x4.mul(pz, rz)),
    perRay,
  );
  const cx = f32x4.sub(f32x4.mul(py, rz), f32x4.mul(pz, ry));
  const cy = f32x4.sub(f32x4.mul(pz, rx), f32x4.mul(px, rz));
  const cz = f32x4.sub(f32x4.mul(px, ry), f32x4.mul(py, rx));
  const across = f32x4.add(f32x4.add(f32x4.mul(cx, cx), f32x4.mul(cy, cy)), f32x4.mul(cz, cz));
  const h2 = f32x4.add(f32x4.mul(across, f32x4.mul(perRay, perRay)), soft);
  const h = f32x4.sqrt(h2);
  const T = f32x4.div(reach, perRay);
  const seen = angle(f32x4.mul(T, h), f32x4.sub(h2, f32x4.mul(t0, f32x4.sub(T, t0))));
  return f32x4.mul(f32x4.div(airScale, h), seen);
}
