import type { Scene } from '@/core/scene/schema';
import type { CoveragePicture } from '@/core/matte/coverage-picture';
import { matte } from '../stages/matte';
import type { Readout } from './readout';
import { smallSpot } from './small-spot';

/** A matte's coverage on the small copy, 8 bits. */
export const coverageOf =
  (scene: Scene, id: string): Readout<CoveragePicture> =>
  async (reader) => {
    const { width, height, coverage } = await reader.see(matte(smallSpot(reader, scene), id));
    return { width, height, data: Uint8Array.from(coverage, (share) => Math.round(255 * share)) };
  };
