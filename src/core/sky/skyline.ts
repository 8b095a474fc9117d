import type { RgbPlanes } from '../plane/plane';
import type { Region } from '../plane/region';
import { freeLand, type FreeLand, type Skyline, type ToldSkyline } from './free-land';
import { openBoxes } from './land-cells';

/**
 * The skyline of a region. Coverage and colours of mixed pixels follow the plate at its own size; what lies on either side is read off the
 * small copy, so that every size and part of a picture agree.
 *
 * @param plate the region of the plate
 * @param cells which cells of the small copy are land alone, from `landCells`
 * @param look what looks at each place where there may be sky
 */
export function skyline(
  out: Skyline,
  plate: RgbPlanes,
  told: ToldSkyline,
  cells: Uint8Array,
  region: Region,
  look: FreeLand = freeLand,
): void {
  for (const name of ['r', 'g', 'b'] as const) out[name].set(plate[name]);
  out.land.fill(1);
  for (const box of openBoxes(cells, told.tones, region)) look(out, plate, told, region, box);
}
