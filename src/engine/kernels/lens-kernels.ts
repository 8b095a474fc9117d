import { SPIKE_STRIDE, STEPS, type AddSpikes } from '@/core/lens/add-spikes';
import { grainStrength } from '@/core/lens/grain';
import type { LensSettings } from '@/core/lens/lens-schema';
import type { RgbPlanes } from '@/core/plane/plane';
import type { Region } from '@/core/plane/region';
import { channels, LAYERS, PARAMS, PIXELS, TABLES, type Bound } from './bound';
import { SPIKE } from './layout';

/** Kernels of the lens. */
export interface LensKernels {
  /** As `spreadLight` of the core. */
  spreadLight: (out: RgbPlanes, light: RgbPlanes, veil: RgbPlanes, share: number, region: Region) => void;
  /** As the core draws spikes. */
  addSpikes: AddSpikes;
  /** As `addGrain` of the core. */
  addGrain: (
    light: RgbPlanes,
    settings: LensSettings['grain'],
    deviates: Float32Array,
    region: Region,
  ) => void;
}

export function lensKernels({ exports, memory, scratch, params, enlarge }: Bound): LensKernels {
  return {
    spreadLight(out, light, veil, share, region) {
      for (const c of ['r', 'g', 'b'] as const)
        enlarge(out[c], light[c], { ...veil, data: veil[c] }, share, region);
    },
    addSpikes(out, { left, top, width, height }, spikes, count, { reach, steps }) {
      const table = scratch + LAYERS;
      const room = table + steps.byteLength;
      const most = Math.floor((scratch + TABLES - room) / SPIKE.BYTES);
      new Float32Array(memory.buffer, table, steps.length).set(steps);
      for (let first = 0; first < count; first += most) {
        const some = Math.min(most, count - first);
        const floats = spikes.subarray(SPIKE_STRIDE * first, SPIKE_STRIDE * (first + some));
        new Float32Array(memory.buffer, room, floats.length).set(floats);
        exports.addSpikes(
          ...[out.byteOffset, left, top, width, height, room, some, STEPS / reach],
          ...[table, scratch + PIXELS],
        );
      }
    },
    addGrain(light, settings, deviates, { left, top, width, height, fullWidth }) {
      const { common, own, scale, perWhite, read, perPixel } = grainStrength(settings, fullWidth);
      params.set([common, own, scale, perWhite, read, perPixel]);
      exports.addGrain(
        ...channels(light),
        ...[deviates.byteOffset, scratch + PARAMS, settings.seed, left, top, width, height],
      );
    },
  };
}
