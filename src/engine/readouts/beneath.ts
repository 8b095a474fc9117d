import { layersOf } from '@/core/picture/layers';
import { tonesUnder } from '@/core/picture/tones-under';
import type { Scene } from '@/core/scene/schema';
import { layerLight } from '../stages/grip';
import { seenPlate } from '../stages/placed';
import type { Readout } from './readout';
import { smallSpot } from './small-spot';

/** The tones of the day on which a circuit's spill lands, as shares of it. */
export const tonesBeneath =
  (scene: Scene, id: string): Readout<Float32Array> =>
  async (reader) => {
    const at = smallSpot(reader, scene);
    const spill = new Float32Array(at.region.width * at.region.height);
    for (const layer of layersOf(scene).filter(({ circuit }) => circuit.id === id)) {
      const light = await reader.see(layerLight(at, layer));
      light.spill.forEach((value, i) => (spill[i] += value));
    }
    return tonesUnder(await reader.see(seenPlate(at)), spill);
  };
