import { horizonAt } from '../geometry/ground';
import { edgeHeight } from './edge-height';
import type { PlateFeatures } from './plate-features';
import { colorsOfSky } from './sky-patches';

/** Limits in Oklab, set on daytime plates: sky is light, or plainly blue, or without colour, and calm. */
const SKY = {
  darkest: 0.42,
  blue: { from: -0.04, darkest: 0.3 },
  yellowest: 0.012,
  reddest: 0.02,
  sharpest: 0.025,
} as const;

/** From how busy on a place is no plain sky, standard deviation of lightness. */
export const BUSIEST = 0.045;

/**
 * The rim of a cloud climbs over some pixels, the edge of a house in one: no step is more than this share of the whole climb, which is looked
 * at so many pixels to both sides.
 */
const RAMP = {
  reach: 3,
  steepest: 0.44,
  sharpest: 0.1,
  busiest: 0.1,
  whitens: { least: 0.15, most: 0.5 },
} as const;

/** Whether a pixel lies on a gentle climb, or on none, along its row and its column. */
function isRamp(
  { width, height, softLightness, b }: PlateFeatures,
  edge: (p: number, q: number) => number,
  x: number,
  y: number,
): boolean {
  const gentle = (at: number, size: number, by: number) => {
    const i = y * width + x;
    let [climb, steepest] = [0, 0];
    const [from, to] = [Math.max(-RAMP.reach, -at), Math.min(RAMP.reach, size - 1 - at)];
    for (let k = from; k < to; k++) {
      const step = edge(i + k * by, i + (k + 1) * by);
      climb += step;
      steepest = Math.max(steepest, step);
    }
    if (steepest < SKY.sharpest) return true;
    const lighter = softLightness[i + to * by] - softLightness[i + from * by];
    const yellower = b[i + to * by] - b[i + from * by];
    const whitens = yellower / lighter > RAMP.whitens.least && yellower / lighter < RAMP.whitens.most;
    return whitens && steepest < RAMP.sharpest && steepest < RAMP.steepest * climb;
  };
  return gentle(x, width, 1) && gentle(y, height, width);
}

/** Where a plate looks like sky, 1 for yes. */
export interface SkyLooks {
  /** Over the horizon. */
  over: Uint8Array;
  /** As light and of such a colour, and not busy. */
  pale: Uint8Array;
  /** All that, and no edge, or only the rim of a cloud. */
  like: Uint8Array;
}

/** Where a plate looks like sky over its horizon. */
export function skyLooks(features: PlateFeatures, horizon: { left: number; right: number }): SkyLooks {
  const { width, height, softLightness, a, b, texture } = features;
  const edge = edgeHeight(features);
  const [over, pale, like] = [0, 1, 2].map(() => new Uint8Array(width * height));
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const i = y * width + x;
      if ((y + 0.5) / height >= horizonAt(horizon, (x + 0.5) / width)) continue;
      over[i] = 1;
      if (softLightness[i] <= (b[i] < SKY.blue.from ? SKY.blue.darkest : SKY.darkest)) continue;
      const step = Math.max(edge(i, x + 1 < width ? i + 1 : i), edge(i, y + 1 < height ? i + width : i));
      pale[i] = Number(texture[i] < BUSIEST);
      const isCalm = pale[i] === 1 && step < SKY.sharpest;
      like[i] = Number(isCalm || (texture[i] < RAMP.busiest && isRamp(features, edge, x, y)));
    }
  }
  const { reddest, yellowest } = colorsOfSky(features, like, {
    reddest: SKY.reddest,
    yellowest: SKY.yellowest + features.doubt,
  });
  for (let i = 0; i < like.length; i++) {
    if (b[i] < yellowest && a[i] < reddest) continue;
    [like[i], pale[i]] = [0, 0];
  }
  return { over, pale, like };
}
