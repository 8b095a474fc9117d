import { outlineRow } from '@/core/geometry/outline-row';
import type { PlatePoint } from '@/core/geometry/camera';
import { tonesUnder } from '@/core/picture/tones-under';
import type { Scene } from '@/core/scene/schema';
import { seenPlate } from '../stages/placed';
import type { Readout } from './readout';
import { smallSpot } from './small-spot';

/** The tones of the day inside an outline, as shares. */
export const tonesInside =
  (scene: Scene, outline: readonly PlatePoint[]): Readout<Float32Array> =>
  async (reader) => {
    const at = smallSpot(reader, scene);
    const { width, height } = at.region;
    const inside = new Float32Array(width * height);
    for (let y = 0; y < height; y++) {
      outlineRow(inside.subarray(y * width, (y + 1) * width), outline, at.region, y);
    }
    return tonesUnder(await reader.see(seenPlate(at)), inside);
  };
