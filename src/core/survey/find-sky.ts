import { fillHoles } from '../plane/fill-holes';
import { flood } from '../plane/flood';
import { horizonAt } from '../geometry/ground';
import type { PlateFeatures } from './plate-features';

/** Limits in Oklab, set on daytime plates: sky is bright, blue or without colour, and calm. */
const SKY = { darkest: 0.42, yellowest: 0.012, reddest: 0.02, busiest: 0.045, largestHole: 0.002 } as const;

/** How far sky is followed into leaves, fraction of the width, and how much darker and otherwise coloured it may be there. */
const THROUGH_LEAVES = { steps: 0.05, lightness: 0.02, color: 0.02 } as const;

/**
 * Sky that is seen between leaves: busy places that are as light as sky, joined to it. Spreads into `sky`, step by step.
 *
 * @param above 1 over the horizon
 */
function spreadBetweenLeaves(
  { width, lightness, a, b, texture }: PlateFeatures,
  sky: Uint8Array,
  above: Uint8Array,
) {
  let edge: number[] = [];
  for (let i = 0; i < sky.length; i++) if (sky[i]) edge.push(i);
  for (let step = Math.round(THROUGH_LEAVES.steps * width); step > 0 && edge.length > 0; step--) {
    const next: number[] = [];
    for (const from of edge) {
      const x = from % width;
      const around = [x > 0 ? from - 1 : -1, x < width - 1 ? from + 1 : -1, from - width, from + width];
      for (const to of around) {
        if (to < 0 || to >= sky.length || sky[to] || !above[to]) continue;
        const isLight = lightness[to] > lightness[from] - THROUGH_LEAVES.lightness;
        const isAlike = Math.hypot(a[to] - a[from], b[to] - b[from]) < THROUGH_LEAVES.color;
        if (!isLight || !isAlike || texture[to] < SKY.busiest) continue;
        sky[to] = 1;
        next.push(to);
      }
    }
    edge = next;
  }
}

/**
 * The sky: what looks like sky, lies above the horizon and hangs together with the plate's upper edge. Returns 1 for
 * sky, width * height.
 */
export function findSky(features: PlateFeatures, horizon: { left: number; right: number }): Uint8Array {
  const { width, height, softLightness, a, b, texture } = features;
  const like = new Uint8Array(width * height);
  const over = new Uint8Array(width * height);
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const i = y * width + x;
      const above = (y + 0.5) / height < horizonAt(horizon, (x + 0.5) / width);
      const pale = softLightness[i] > SKY.darkest && b[i] < SKY.yellowest && a[i] < SKY.reddest;
      if (above) over[i] = 1;
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
  spreadBetweenLeaves(features, sky, over);
  fillHoles(sky, width, height, SKY.largestHole * sky.length);
  return sky;
}
