import { decodeCodes } from '@/core/color/decode-codes';
import { linearOfCodes } from '@/core/color/srgb-codes';
import { stage } from '../graph/stage';

/** The plate as scene-linear light. */
export const plate = stage({
  name: 'plate',
  part: 'the photo',
  settings: ({ scene }) => scene.plate.asset,
  inputs: () => ({}),
  load: async (assets, asset, region, signal) => ({ data: await assets.codes(asset, region, signal) }),
  planes: (pixels) => ({ r: pixels, g: pixels, b: pixels }),
  pace: 'heavy',
  kit: () => linearOfCodes(65535),
  run(out, _, { loaded, kit: decoded, kernels }, { of, first, count }) {
    (kernels?.decodeCodes ?? decodeCodes)(of(out), loaded as Uint16Array, decoded, first, count);
  },
});
