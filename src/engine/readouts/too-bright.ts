import type { Scene } from '@/core/scene/schema';
import { tooBright } from '../stages/too-bright';
import type { Readout } from './readout';
import { smallSpot } from './small-spot';

/** By how many stops what burns lights the land of a scene too brightly for its exposure. */
export const stopsTooBrightIn =
  (scene: Scene): Readout<number> =>
  async (reader) =>
    (await reader.see(tooBright(smallSpot(reader, scene)))).stops[0];
