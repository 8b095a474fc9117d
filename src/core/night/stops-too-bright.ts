import { LUMINANCE } from '../color/luminance';
import type { RgbPlanes } from '../plane/plane';

/** Light from which land burns out, that of white paper by day, and the share of the land that may: pools under lamps. */
const BURNT = { light: 1, share: 0.05 } as const;

/** Coverage from which a place is land. */
const LAND = 0.5;

/**
 * By how many stops light is too bright for its exposure: so many fewer leave all but a twentieth of the land under white.
 *
 * @param light scene-linear light on the land, exposed
 * @param land coverage by land, 0 to 1
 * @returns stops, 0 where nothing burns out, or there is no land
 */
export function stopsTooBright({ r, g, b }: RgbPlanes, land: Float32Array): number {
  const lights = new Float32Array(land.length);
  let count = 0;
  for (let i = 0; i < land.length; i++) {
    if (land[i] >= LAND) lights[count++] = LUMINANCE[0] * r[i] + LUMINANCE[1] * g[i] + LUMINANCE[2] * b[i];
  }
  if (count === 0) return 0;
  const lightest = lights.subarray(0, count).sort()[Math.floor((1 - BURNT.share) * (count - 1))];
  return Math.max(0, Math.log2(lightest / BURNT.light));
}
