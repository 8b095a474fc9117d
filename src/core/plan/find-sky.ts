import { fillHoles } from '../plane/fill-holes';
import { flood } from '../plane/flood';
import { horizonAt } from './ground';
import type { PlateFeatures } from './plate-features';

/** Limits in Oklab, set on daytime plates: sky is bright, blue or without colour, and calm. */
const SKY = { darkest: 0.42, yellowest: 0.012, reddest: 0.02, busiest: 0.045, largestHole: 0.002 } as const;

/**
 * The sky: what looks like sky, lies above the horizon and hangs together with the plate's upper edge. Returns 1 for
 * sky, width * height.
 */
export function findSky(features: PlateFeatures, horizon: { left: number; right: number }): Uint8Array {
  const { width, height, softLightness, a, b, texture } = features;
  const like = new Uint8Array(width * height);
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const i = y * width + x;
      const above = (y + 0.5) / height < horizonAt(horizon, (x + 0.5) / width);
      const pale = softLightness[i] > SKY.darkest && b[i] < SKY.yellowest && a[i] < SKY.reddest;
      if (above && pale && texture[i] < SKY.busiest) like[i] = 1;
    }
  }
  const sky = new Uint8Array(width * height);
  const patch = new Int32Array(width * height);
  for (let x = 0; x < width; x++) {
    if (sky[x]) continue;
    const size = flood(patch, like, width, height, x);
    for (let k = 0; k < size; k++) sky[patch[k]] = 1;
  }
  fillHoles(sky, width, height, SKY.largestHole * sky.length);
  return sky;
}
