import { MIDDLE_GREY } from '@/core/color/middle-grey';
import { luminance } from '@/core/color/luminance';
import { ambientLux } from '@/core/night/hour';
import { faderGain } from '@/core/fields/fader-gain';
import { lightPerLux, pictureWeights } from '@/core/picture/weights';
import type { PlatePoint } from '@/core/geometry/camera';
import type { Scene } from '@/core/scene/schema';
import { layerWants, litLayers } from '../stages/grip';
import type { Readout } from './readout';
import { smallSpot } from './small-spot';

/** The light that falls on a place of a scene: ambient light and the spill of all that burns, lux. */
export const luxAt =
  (scene: Scene, { u, v }: PlatePoint): Readout<number> =>
  async (reader) => {
    const at = smallSpot(reader, scene);
    const { width, height } = at.region;
    const cell = (part: number, size: number) => Math.min(size - 1, Math.max(0, Math.floor(part * size)));
    const pixel = cell(v, height) * width + cell(u, width);
    const lit = litLayers(at);
    const { layers } = pictureWeights(scene, lit, MIDDLE_GREY);
    let spilt = 0;
    for (const [k, layer] of lit.entries()) {
      const { light, gripped } = layerWants(at, layer);
      const { spill } = await reader.see(gripped ?? light);
      spilt += luminance(layers[k].spill) * spill[pixel];
    }
    const { night, desk } = scene;
    return ambientLux(night.hour) * faderGain(desk.ambient) + spilt / lightPerLux(night);
  };
