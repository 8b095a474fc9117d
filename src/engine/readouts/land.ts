import type { RgbPlanes } from '@/core/plane/plane';
import type { Scene } from '@/core/scene/schema';
import { seenPlate } from '../stages/placed';
import { relief } from '../stages/relief';
import type { Readout } from './readout';
import { smallSpot } from './small-spot';

/** The lie of the land on the small copy of a plate. */
export interface LandPicture {
  width: number;
  height: number;
  /** How far along each pixel's view ray its surface lies, in the ray's own lengths. */
  reach: Float32Array;
  /** Coverage by land, and by what lies level, 0 to 1. */
  land: Float32Array;
  level: Float32Array;
  /** What the plate shows there, linear light. */
  plate: RgbPlanes;
}

/** The lie of the land on the small copy. */
export const landOf =
  (scene: Scene): Readout<LandPicture> =>
  async (reader) => {
    const at = smallSpot(reader, scene);
    const { width, height, reach, land, normalZ } = await reader.see(relief(at));
    const lie = { reach: reach.slice(), land: land.slice(), level: normalZ.slice() };
    const { r, g, b } = await reader.see(seenPlate(at));
    return { width, height, ...lie, plate: { width, height, r: r.slice(), g: g.slice(), b: b.slice() } };
  };
