import { srgb } from '@/core/color/srgb';
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
  kit: () => Float32Array.from({ length: 65536 }, (_, code) => srgb.decode(code / 65535)),
  run(out, _, { loaded, kit: decoded }, { of, first, count }) {
    const { r, g, b } = of(out);
    const codes = loaded!;
    for (let i = 0, from = 3 * first; i < count; i++, from += 3) {
      r[i] = decoded[codes[from]];
      g[i] = decoded[codes[from + 1]];
      b[i] = decoded[codes[from + 2]];
    }
  },
});
