import type { Blend } from '@/core/plane/blend';
import type { Bound } from './bound';

/** Kernels that weigh and add planes. */
export const blendKernels = ({ exports }: Bound): Blend => ({
  holdBack: (out, cover) => exports.holdBack(out.byteOffset, cover.byteOffset, out.length),
  mixThrough: (out, light, through, other) =>
    exports.mixThrough(out.byteOffset, light.byteOffset, through.byteOffset, other, out.length),
  addWeighted: (out, light, weight) => exports.addWeighted(out.byteOffset, light.byteOffset, weight, out.length),
  addCovered(out, light, coverage, outside) {
    const [base, slope] = outside ? [1, -1] : [0, 1];
    exports.addCovered(out.byteOffset, light.byteOffset, coverage.byteOffset, base, slope, out.length);
  },
});
