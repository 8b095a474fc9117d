import { flood } from '../plane/flood';
import type { PlateFeatures } from './plate-features';

/** Limits in Oklab of a cloud that the sun lights: brighter and warmer than the rest of the sky. */
const CLOUD = { darkest: 0.8, yellowest: 0.035, reddest: 0.02 } as const;

/** Share of a cloud's outline that must be sky or the plate's upper edge: a pale gable has its house below it. */
const AMID_SKY = 0.9;

/**
 * Clouds too warm to look like sky by themselves: bright patches with sky, or the plate's upper edge, all around.
 *
 * @param sky 1 for sky; clouds are added
 * @param above 1 over the horizon
 */
export function takeClouds(
  { width, height, softLightness, a, b }: PlateFeatures,
  sky: Uint8Array,
  above: Uint8Array,
): void {
  const like = new Uint8Array(width * height);
  for (let i = 0; i < like.length; i++) {
    const isWarm = b[i] < CLOUD.yellowest && a[i] < CLOUD.reddest;
    if (above[i] && !sky[i] && softLightness[i] > CLOUD.darkest && isWarm) like[i] = 1;
  }
  const patch = new Int32Array(width * height);
  for (let seed = 0; seed < like.length; seed++) {
    if (!like[seed]) continue;
    const size = flood(patch, like, width, height, seed);
    const own = patch.subarray(0, size);
    let [amid, all] = [0, 0];
    for (const i of own) {
      const x = i % width;
      // Beyond the sides of the plate nothing is known.
      const around = [i - width, i + width, x > 0 ? i - 1 : i, x < width - 1 ? i + 1 : i];
      for (const to of around) {
        if (to >= like.length || like[to]) continue;
        all++;
        if (to < 0 || sky[to]) amid++;
      }
    }
    const isCloud = amid >= AMID_SKY * all;
    for (const i of own) {
      like[i] = 0;
      if (isCloud) sky[i] = 1;
    }
  }
}
