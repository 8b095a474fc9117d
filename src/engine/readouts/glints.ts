import { readGlint, type Glint } from '@/core/lens/glint';
import type { Scene } from '@/core/scene/schema';
import { glints } from '../stages/lens';
import type { Readout } from './readout';
import { smallSpot } from './small-spot';

/** The sources of a scene that get spikes. */
export const glintsOf =
  (scene: Scene): Readout<Glint[]> =>
  async (reader) => {
    const { glints: table, count } = await reader.see(glints(smallSpot(reader, scene)));
    return Array.from({ length: count[0] }, (_, k) => readGlint(table, k));
  };
