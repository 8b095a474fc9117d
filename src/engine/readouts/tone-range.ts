import type { ToneRange } from '@/core/grade/grade';
import type { Scene } from '@/core/scene/schema';
import { range } from '../stages/night';
import type { Readout } from './readout';
import { smallSpot } from './small-spot';

/** The tones that a scene's night occupies before it is refitted. */
export const toneRangeOf =
  (scene: Scene): Readout<ToneRange> =>
  async (reader) => {
    const { range: ends } = await reader.see(range(smallSpot(reader, scene)));
    return { low: ends[0], high: ends[1] };
  };
