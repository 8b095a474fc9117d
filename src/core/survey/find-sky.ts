import { fillHoles } from '../plane/fill-holes';
import { flood } from '../plane/flood';
import { edgeHeight } from './edge-height';
import { horizonAt } from '../geometry/ground';
import type { PlateFeatures } from './plate-features';
import { codeOf, type SaidPlane } from './said';
import { takeClouds } from './take-clouds';
import { hypot } from '../plane/hypot';

/** Limits in Oklab, set on daytime plates: sky is bright, blue or without colour, and calm. */
const SKY = {
  darkest: 0.42,
  yellowest: 0.012,
  reddest: 0.02,
  busiest: 0.045,
  sharpest: 0.025,
  largestHole: 0.002,
} as const;

/** Steps by which sky goes on to the edge at which it ends: pixels on it count as sharp. */
const OVER_EDGE = 2;

/** How far sky is sought behind thin things, fraction of the width, and how alike it must be there. */
const OVER_THIN = { leap: 0.024, lightness: 0.03, color: 0.012 } as const;

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
        const isAlike = hypot(a[to] - a[from], b[to] - b[from]) < THROUGH_LEAVES.color;
        if (!isLight || !isAlike || texture[to] < SKY.busiest) continue;
        sky[to] = 1;
        next.push(to);
      }
    }
    edge = next;
  }
}

/** Ways over thin things: to the sides, up and down. */
const leapsOver = (leap: number, width: number) => [
  { dx: leap, by: leap },
  { dx: -leap, by: -leap },
  { dx: 0, by: leap * width },
  { dx: 0, by: -leap * width },
];

/** Grows by a pixel up, down and to the sides, where it may. */
function growInto(sky: Uint8Array, may: Uint8Array, width: number): void {
  const before = sky.slice();
  for (let i = 0; i < sky.length; i++) {
    if (before[i] || !may[i]) continue;
    const x = i % width;
    const beside = (x > 0 && before[i - 1]) || (x < width - 1 && before[i + 1]);
    if (beside || before[i - width] || before[i + width]) sky[i] = 1;
  }
}

/**
 * The sky: what looks like sky, lies above the horizon and hangs together with the plate's upper edge, across no sharp edge: a pale roof under
 * a pale sky is none. What is said to be sky is, whatever it looks like, and what is said to be something else is not. Returns 1 for sky,
 * width * height.
 */
export function findSky(
  features: PlateFeatures,
  horizon: { left: number; right: number },
  said?: SaidPlane,
): Uint8Array {
  const { width, height, softLightness, a, b, texture } = features;
  const edge = edgeHeight(features);
  const like = new Uint8Array(width * height);
  const pales = new Uint8Array(width * height);
  const over = new Uint8Array(width * height);
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const i = y * width + x;
      const above = (y + 0.5) / height < horizonAt(horizon, (x + 0.5) / width);
      const pale = softLightness[i] > SKY.darkest && b[i] < SKY.yellowest && a[i] < SKY.reddest;
      if (above) over[i] = 1;
      const right = x + 1 < width ? edge(i, i + 1) : 0;
      const below = y + 1 < height ? edge(i, i + width) : 0;
      const calm = texture[i] < SKY.busiest && Math.max(right, below) < SKY.sharpest;
      if (above && pale && texture[i] < SKY.busiest) pales[i] = 1;
      if (above && pale && calm) like[i] = 1;
    }
  }
  const sky = new Uint8Array(width * height);
  const patch = new Int32Array(width * height);
  const open: number[] = [];
  const take = (seed: number) => {
    if (sky[seed]) return;
    const size = flood(patch, like, width, height, seed);
    for (let k = 0; k < size; k++) {
      sky[patch[k]] = 1;
      open.push(patch[k]);
    }
  };
  for (let x = 0; x < width; x++) take(x);
  // What goes on alike behind a wire, a mast or a lamp-post is sky too.
  const leaps = leapsOver(Math.max(7, Math.round(OVER_THIN.leap * width)), width);
  while (open.length > 0) {
    const from = open.pop()!;
    for (const { dx, by } of leaps) {
      const [x, to] = [(from % width) + dx, from + by];
      if (x < 0 || x >= width || to < 0 || to >= sky.length || sky[to] || !like[to]) continue;
      const isAlike = hypot(a[to] - a[from], b[to] - b[from]) < OVER_THIN.color;
      if (isAlike && Math.abs(softLightness[to] - softLightness[from]) < OVER_THIN.lightness) take(to);
    }
  }
  for (let step = 0; step < OVER_EDGE; step++) growInto(sky, pales, width);
  takeClouds(features, sky, over);
  spreadBetweenLeaves(features, sky, over);
  fillHoles(sky, width, height, SKY.largestHole * sky.length);
  said?.forEach((code, i) => {
    if (code) sky[i] = code === codeOf('sky') ? 1 : 0;
  });
  return sky;
}
