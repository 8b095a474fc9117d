import { createBoxBlur } from './box-blur';
import type { RgbPlanes } from './plane';

/** A filter's result as a local line of a colour guide: value = r * guide.r + g * guide.g + b * guide.b + offset. */
export interface ColorLine {
  r: Float32Array;
  g: Float32Array;
  b: Float32Array;
  offset: Float32Array;
}

/**
 * Guided filter with a colour guide (He, Sun and Tang 2013, section 3.5), given as its averaged local lines, so that they
 * can be found on a small picture and applied to a large one (He and Sun 2015).
 *
 * @param out planes as large as the guide; they hold the lines afterwards
 * @param radius half the window, pixels
 * @param epsilon variance of the guide under which a place counts as flat
 */
export function colorGuidedFilter(
  out: ColorLine,
  guide: RgbPlanes,
  source: Float32Array,
  radius: number,
  epsilon: number,
): void {
  const { width, height } = guide;
  const size = width * height;
  const blur = createBoxBlur(width, height, radius);
  const mean = (a: Float32Array, b?: Float32Array) => {
    const blurred = new Float32Array(size);
    if (b) for (let i = 0; i < size; i++) blurred[i] = a[i] * b[i];
    blur(blurred, b ? blurred : a);
    return blurred;
  };
  const { r, g, b } = guide;
  const { r: outR, g: outG, b: outB, offset: outOffset } = out;
  const [mr, mg, mb, mp] = [r, g, b, source].map((plane) => mean(plane));
  const [rr, rg, rb, gg, gb, bb] = [mean(r, r), mean(r, g), mean(r, b), mean(g, g), mean(g, b), mean(b, b)];
  const [rp, gp, bp] = [r, g, b].map((plane) => mean(plane, source));
  for (let i = 0; i < size; i++) {
    const xr = mr[i];
    const xg = mg[i];
    const xb = mb[i];
    const p = mp[i];
    const a11 = rr[i] - xr * xr + epsilon;
    const a12 = rg[i] - xr * xg;
    const a13 = rb[i] - xr * xb;
    const a22 = gg[i] - xg * xg + epsilon;
    const a23 = gb[i] - xg * xb;
    const a33 = bb[i] - xb * xb + epsilon;
    const c1 = rp[i] - xr * p;
    const c2 = gp[i] - xg * p;
    const c3 = bp[i] - xb * p;
    // Cofactors of the covariance's symmetric matrix.
    const m11 = a22 * a33 - a23 * a23;
    const m12 = a13 * a23 - a12 * a33;
    const m13 = a12 * a23 - a13 * a22;
    const m22 = a11 * a33 - a13 * a13;
    const m23 = a12 * a13 - a11 * a23;
    const m33 = a11 * a22 - a12 * a12;
    const by = 1 / (a11 * m11 + a12 * m12 + a13 * m13);
    const lr = by * (m11 * c1 + m12 * c2 + m13 * c3);
    const lg = by * (m12 * c1 + m22 * c2 + m23 * c3);
    const lb = by * (m13 * c1 + m23 * c2 + m33 * c3);
    outR[i] = lr;
    outG[i] = lg;
    outB[i] = lb;
    outOffset[i] = p - lr * xr - lg * xg - lb * xb;
  }
  for (const plane of [out.r, out.g, out.b, out.offset]) blur(plane, plane);
}
