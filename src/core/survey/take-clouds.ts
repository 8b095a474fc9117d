import { flood } from '../plane/flood';
import type { PlateFeatures } from './plate-features';

/** Limits in Oklab of a cloud that the sun lights: brighter and warmer than the rest of the sky. */
const CLOUD = { darkest: 0.8, yellowest: 0.035, reddest: 0.02 } as const;

/** Share of a cloud's outline that must be sky or the plate's upper edge: a pale gable has its house below it. */
const AMID_SKY = 0.9;

/** Up, down and to the sides. */
const AROUND = [
  [0, -1],
  [0, 1],
  [-1, 0],
  [1, 0],
] as const;

/** How broad a mast or a wire before a cloud may be, behind which is sky, fraction of the width. */
const THIN = 0.024;

/**
 * Clouds too warm to look like sky by themselves: bright patches with sky, or the plate's upper edge, all around, be it behind a mast.
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
  const thin = Math.round(THIN * width);
  /** Whether sky follows on a pixel that is none, some steps on in a direction. */
  const isBeforeSky = (from: number, dx: number, dy: number) => {
    for (let k = 0; k <= thin; k++) {
      const [x, to] = [(from % width) + k * dx, from + k * (dx + dy * width)];
      if (to < 0) return true;
      if (x < 0 || x >= width || to >= like.length) return false;
      if (sky[to]) return true;
    }
    return false;
  };
  for (let seed = 0; seed < like.length; seed++) {
    if (!like[seed]) continue;
    const size = flood(patch, like, width, height, seed);
    const own = patch.subarray(0, size);
    let [amid, all] = [0, 0];
    for (const i of own) {
      const x = i % width;
      for (const [dx, dy] of AROUND) {
        const to = i + dx + dy * width;
        // Beyond the sides of the plate nothing is known.
        if (x + dx < 0 || x + dx >= width || to >= like.length || like[to]) continue;
        all++;
        if (isBeforeSky(to, dx, dy)) amid++;
      }
    }
    const isCloud = amid >= AMID_SKY * all;
    for (const i of own) {
      like[i] = 0;
      if (isCloud) sky[i] = 1;
    }
  }
}
