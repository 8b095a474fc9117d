import type { ToneRange } from '@/core/grade/grade';
import { meteredGain } from '@/core/night/metered-gain';
import type { Scene } from '@/core/scene/schema';
import { range } from '../stages/night';
import { survey } from '../stages/survey';
import type { Readout } from './readout';
import { smallSpot } from './small-spot';

/** What a night takes from its own photo: the gain of its metering, and the tones that are refitted where they are measured anew. */
export const measuredNight =
  (scene: Scene): Readout<{ gain: number; range?: ToneRange }> =>
  async (reader) => {
    const spot = smallSpot(reader, scene);
    const { medianLuminance } = await reader.see(survey(spot));
    const gain = meteredGain(scene.night, medianLuminance[0]);
    if (!scene.night.refit.always) return { gain };
    const { range: ends } = await reader.see(range(spot));
    return { gain, range: { low: ends[0], high: ends[1] } };
  };
