import type { Rgb } from '../color/rgb';
import type { CubeLut } from './cube-lut';

/** A colour through a look-up table: linear between entries of curves, tetrahedral (Sakamoto 1983) inside a cube. */
export function applyLut({ dimensions, size, domainMin, domainMax, data }: CubeLut, color: Rgb): Rgb {
  const last = size - 1;
  const place = (c: 0 | 1 | 2) =>
    Math.min(last, Math.max(0, ((color[c] - domainMin[c]) / (domainMax[c] - domainMin[c])) * last));
  const low = (at: number) => Math.min(last - 1, Math.floor(at));
  const [r, g, b] = [place(0), place(1), place(2)];
  const [r0, g0, b0] = [low(r), low(g), low(b)];
  const [fr, fg, fb] = [r - r0, g - g0, b - b0];
  if (dimensions === 1) {
    const curve = (at: number, f: number, c: number) =>
      data[3 * at + c] + f * (data[3 * at + 3 + c] - data[3 * at + c]);
    return [curve(r0, fr, 0), curve(g0, fg, 1), curve(b0, fb, 2)];
  }
  const step = { r: 3, g: 3 * size, b: 3 * size * size };
  const origin = r0 * step.r + g0 * step.g + b0 * step.b;
  // From the low corner along the axes, the largest fraction first: each step adds its edge times its fraction.
  const axes = [
    { f: fr, by: step.r },
    { f: fg, by: step.g },
    { f: fb, by: step.b },
  ].sort((p, q) => q.f - p.f);
  const first = origin + axes[0].by;
  const second = first + axes[1].by;
  const third = second + axes[2].by;
  const channel = (c: 0 | 1 | 2) =>
    data[origin + c] * (1 - axes[0].f) +
    data[first + c] * (axes[0].f - axes[1].f) +
    data[second + c] * (axes[1].f - axes[2].f) +
    data[third + c] * axes[2].f;
  return [channel(0), channel(1), channel(2)];
}
