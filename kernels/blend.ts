/* Planes weighed and added, four pixels at a time. The same as src/core/plane/blend.ts, 32-bit. */
import { ONE } from './film';

/** Keeps of `count` pixels of a plane what a cover leaves. */
export function holdBack(out: usize, cover: usize, count: i32): void {
  const end = out + (<usize>(count & ~3) << 2);
  for (; out < end; out += 16, cover += 16)
    v128.store(out, f32x4.mul(v128.load(out), f32x4.sub(ONE, v128.load(cover))));
  const last = out + (<usize>(count & 3) << 2);
  for (; out < last; out += 4, cover += 4) store<f32>(out, load<f32>(out) * (1 - load<f32>(cover)));
}

/** `count` pixels of a light as far as it comes through, and for the rest `other`. */
export function mixThrough(out: usize, light: usize, through: usize, other: f32, count: i32): void {
  const others = f32x4.splat(other);
  const end = out + (<usize>(count & ~3) << 2);
  for (; out < end; out += 16, light += 16, through += 16)
    v128.store(
      out,
      f32x4.add(others, f32x4.mul(v128.load(through), f32x4.sub(v128.load(light), others))),
    );
  const last = out + (<usize>(count & 3) << 2);
  for (; out < last; out += 4, light += 4, through += 4)
    store<f32>(out, other + load<f32>(through) * (load<f32>(light) - other));
}

/** Adds `count` pixels of a light, weighed. */
export function addWeighted(out: usize, light: usize, weight: f32, count: i32): void {
  const weights = f32x4.splat(weight);
  const end = out + (<usize>(count & ~3) << 2);
  for (; out < end; out += 16, light += 16)
    v128.store(out, f32x4.add(v128.load(out), f32x4.mul(weights, v128.load(light))));
  const last = out + (<usize>(count & 3) << 2);
  for (; out < last; out += 4, light += 4) store<f32>(out, load<f32>(out) + weight * load<f32>(light));
}

/** Adds `count` pixels of a light by `base + slope * coverage`: what covers it, or what does not. */
export function addCovered(out: usize, light: usize, coverage: usize, base: f32, slope: f32, count: i32): void {
  const bases = f32x4.splat(base);
  const slopes = f32x4.splat(slope);
  const end = out + (<usize>(count & ~3) << 2);
  for (; out < end; out += 16, light += 16, coverage += 16) {
    const share = f32x4.add(bases, f32x4.mul(slopes, v128.load(coverage)));
    v128.store(out, f32x4.add(v128.load(out), f32x4.mul(share, v128.load(light))));
  }
  const last = out + (<usize>(count & 3) << 2);
  for (; out < last; out += 4, light += 4, coverage += 4)
    store<f32>(out, load<f32>(out) + (base + slope * load<f32>(coverage)) * load<f32>(light));
}
