/*
 * What haze scatters of a beam, four pixels at a time. The same as src/core/light/add-beam-air.ts: same formulas, 32-bit.
 */

import { clamped, ONE, ZERO } from './film';
import { PER_CUTOFF_SOFT } from './generated';

const LANES = f32x4(0, 1, 2, 3);
const SIGN = i32x4.splat(0x80000000);

const PER_CUTOFF = f32x4.splat(PER_CUTOFF_SOFT);

/** Error function (Abramowitz and Stegun 1964, 7.1.28). */
@inline
function erf(x: v128): v128 {
  const t = f32x4.abs(x);
  let p = f32x4.splat(0.0000430638);
  p = f32x4.add(f32x4.mul(p, t), f32x4.splat(0.0002765672));
  p = f32x4.add(f32x4.mul(p, t), f32x4.splat(0.0001520143));
  p = f32x4.add(f32x4.mul(p, t), f32x4.splat(0.0092705272));
  p = f32x4.add(f32x4.mul(p, t), f32x4.splat(0.0422820123));
  p = f32x4.add(f32x4.mul(p, t), f32x4.splat(0.0705230784));
  p = f32x4.add(f32x4.mul(p, t), ONE);
  const p2 = f32x4.mul(p, p);
  const p4 = f32x4.mul(p2, p2);
  const p8 = f32x4.mul(p4, p4);
  const value = f32x4.sub(ONE, f32x4.div(ONE, f32x4.mul(p8, p8)));
  return v128.or(value, v128.and(x, SIGN));
}

/** An angle by its sine and cosine; from a right angle on some angle of that side. */
@inline
function angleOf(sine: v128, cosine: v128): v128 {
  const s2 = f32x4.mul(sine, sine);
  let p = f32x4.add(f32x4.mul(s2, f32x4.splat(0.0446428571)), f32x4.splat(0.075));
  p = f32x4.add(f32x4.mul(p, s2), f32x4.splat(0.1666666667));
  p = f32x4.add(f32x4.mul(p, s2), ONE);
  const far = v128.or(f32x4.splat(1.6), v128.and(sine, SIGN));
  return v128.bitselect(f32x4.mul(sine, p), far, f32x4.gt(cosine, ZERO));
}

/**
 * Adds a beam's light in the air to rows of a region. `width` is at least 4. `params`: ray at the first pixel's middle (3),
 * ray step to the right (3), ray step down (3), source place from the eye (3), where it faces (3), weight, root of half its
 * power, squared radius, focus, cut-off, least cosine.
 */
export function addBeamAir(air: usize, reachPlane: usize, params: usize, width: i32, from: i32, to: i32): void {
  const stepX = v128.load32_splat(params + 12);
  const stepY = v128.load32_splat(params + 16);
  const stepZ = v128.load32_splat(params + 20);
  const px = v128.load32_splat(params + 36);
  const py = v128.load32_splat(params + 40);
  const pz = v128.load32_splat(params + 44);
  const fx = v128.load32_splat(params + 48);
  const fy = v128.load32_splat(params + 52);
  const fz = v128.load32_splat(params + 56);
  const weight = v128.load32_splat(params + 60);
  const narrow = v128.load32_splat(params + 64);
  const soft = v128.load32_splat(params + 68);
  const focus = <i32>load<f32>(params + 72);
  const cutoff = v128.load32_splat(params + 76);
  const least = v128.load32_splat(params + 80);

  for (let y = from; y < to; y++) {
    const row = <f32>y;
    const rowX = f32x4.splat(load<f32>(params) + row * load<f32>(params + 24));
    const rowY = f32x4.splat(load<f32>(params + 4) + row * load<f32>(params + 28));
    const rowZ = f32x4.splat(load<f32>(params + 8) + row * load<f32>(params + 32));
    for (let x = 0; x < width; x += 4) {
      // The last group reaches back over pixels that are done; what it adds there is masked out.
      const overlap = x > width - 4 ? x - (width - 4) : 0;
      const start = x - overlap;
      const at = <usize>(y * width + start) << 2;
      const along = f32x4.add(f32x4.splat(<f32>start), LANES);
      const rx = f32x4.add(rowX, f32x4.mul(along, stepX));
      const ry = f32x4.add(rowY, f32x4.mul(along, stepY));
      const rz = f32x4.add(rowZ, f32x4.mul(along, stepZ));
      const rayLength = f32x4.sqrt(
        f32x4.add(f32x4.add(f32x4.mul(rx, rx), f32x4.mul(ry, ry)), f32x4.mul(rz, rz)),
      );
      const t0 = f32x4.div(
        f32x4.add(f32x4.add(f32x4.mul(px, rx), f32x4.mul(py, ry)), f32x4.mul(pz, rz)),
        rayLength,
      );
      const k = f32x4.div(t0, rayLength);
      const cx = f32x4.sub(px, f32x4.mul(k, rx));
      const cy = f32x4.sub(py, f32x4.mul(k, ry));
      const cz = f32x4.sub(pz, f32x4.mul(k, rz));
      const away2 = f32x4.add(f32x4.add(f32x4.mul(cx, cx), f32x4.mul(cy, cy)), f32x4.mul(cz, cz));
      const away = f32x4.add(f32x4.sqrt(away2), f32x4.splat(1e-9));
      const ahead = f32x4.neg(
        f32x4.div(
          f32x4.add(f32x4.add(f32x4.mul(fx, cx), f32x4.mul(fy, cy)), f32x4.mul(fz, cz)),
          away,
        ),
      );
      const forth = f32x4.div(
        f32x4.add(f32x4.add(f32x4.mul(fx, rx), f32x4.mul(fy, ry)), f32x4.mul(fz, rz)),
        rayLength,
      );
      const nearest = f32x4.sqrt(f32x4.add(f32x4.mul(ahead, ahead), f32x4.mul(forth, forth)));
      const bright = v128.and(
        f32x4.ge(nearest, least),
        i32x4.ge_s(i32x4(0, 1, 2, 3), i32x4.splat(overlap)),
      );
      if (!v128.any_true(bright)) continue;

      const h2 = f32x4.add(f32x4.mul(away, away), soft);
      const h = f32x4.sqrt(h2);
      const end = f32x4.sub(f32x4.mul(v128.load(reachPlane + at), rayLength), t0);
      const toFirst = f32x4.sqrt(f32x4.add(h2, f32x4.mul(t0, t0)));
      const toLast = f32x4.sqrt(f32x4.add(h2, f32x4.mul(end, end)));
      const sf = f32x4.neg(f32x4.div(t0, toFirst));
      const cf = f32x4.div(h, toFirst);
      const sl = f32x4.div(end, toLast);
      const cl = f32x4.div(h, toLast);
      const sm = f32x4.div(forth, nearest);
      const cm = f32x4.div(ahead, nearest);
      const fromMiddle = f32x4.sub(f32x4.mul(sl, cm), f32x4.mul(cl, sm));
      const pastFirst = f32x4.sub(f32x4.mul(sf, cm), f32x4.mul(cf, sm));
      const last = angleOf(fromMiddle, f32x4.add(f32x4.mul(cl, cm), f32x4.mul(sl, sm)));
      const first = angleOf(pastFirst, f32x4.add(f32x4.mul(cf, cm), f32x4.mul(sf, sm)));
      const seen = f32x4.sub(erf(f32x4.mul(narrow, last)), erf(f32x4.mul(narrow, first)));
      const atEnd = f32x4.lt(fromMiddle, ZERO);
      const atBegin = f32x4.gt(pastFirst, ZERO);
      const sa = v128.bitselect(sl, v128.bitselect(sf, sm, atBegin), atEnd);
      const ca = v128.bitselect(cl, v128.bitselect(cf, cm, atBegin), atEnd);
      const sine = f32x4.sub(
        f32x4.div(f32x4.mul(sa, rz), rayLength),
        f32x4.div(f32x4.mul(ca, cz), away),
      );
      const under = f32x4.add(f32x4.mul(f32x4.sub(cutoff, sine), PER_CUTOFF), f32x4.splat(0.5));
      let brightest = nearest;
      for (let turn = 0; turn < focus; turn++) brightest = f32x4.mul(brightest, brightest);
      const lit = f32x4.div(
        f32x4.mul(
          f32x4.mul(f32x4.mul(weight, brightest), f32x4.pmax(ZERO, seen)),
          clamped(under),
        ),
        h,
      );
      v128.store(air + at, f32x4.add(v128.load(air + at), v128.and(lit, bright)));
    }
  }
}
