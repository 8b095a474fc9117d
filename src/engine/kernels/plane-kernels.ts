import type { Blend } from '@/core/plane/blend';
import type { boxBlur } from '@/core/plane/box-blur';
import type { Bound } from './bound';

/** Kernels of planes: as those of the core. */
export interface PlaneKernels extends Blend {
  boxBlur: typeof boxBlur;
}

export const planeKernels = ({ exports }: Bound): PlaneKernels => ({
  boxBlur: (out, source, scratch, width, height, radius) =>
    exports.boxBlur(out.byteOffset, source.byteOffset, scratch.byteOffset, width, height, radius),
  holdBack: (out, cover) => exports.holdBack(out.byteOffset, cover.byteOffset, out.length),
  mixThrough: (out, light, through, other) =>
    exports.mixThrough(out.byteOffset, light.byteOffset, through.byteOffset, other, out.length),
  addWeighted: (out, light, weight) =>
    exports.addWeighted(out.byteOffset, light.byteOffset, weight, out.length),
  addCovered(out, light, coverage, outside) {
    const [base, slope] = outside ? [1, -1] : [0, 1];
    exports.addCovered(out.byteOffset, light.byteOffset, coverage.byteOffset, base, slope, out.length);
  },
});
