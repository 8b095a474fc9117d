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

/**
 * How busy a patch of sky may be against the largest one, and beyond that. A small one that is darker than the largest by so much, and no bluer
 * by so much, is no sky either.
 */
const AS_CALM = { times: 1.8, over: 0.006, small: 0.05, darker: 0.1, bluer: 0.02 } as const;

/** A patch of what looks like sky, with the means of what it looks like. */
interface Patch {
  pixels: Int32Array;
  texture: number;
  lightness: number;
  b: number;
}

/** Whether a patch at the upper edge may be sky beside the largest one: slates and concrete are as grey as clouds, but not as calm. */
function isSkyBeside(patch: Patch, largest: Patch): boolean {
  if (patch.texture > AS_CALM.times * largest.texture + AS_CALM.over) return false;
  if (patch.pixels.length > AS_CALM.small * largest.pixels.length) return true;
  const isDarker = patch.lightness < largest.lightness - AS_CALM.darker;
  return !isDarker || patch.b < largest.b - AS_CALM.bluer;
}

/** Where all around a pixel looks like sky: two patches that touch in a strait are two. Beyond the upper edge nothing does. */
function solidOf(like: Uint8Array, width: number, height: number): Uint8Array {
  const solid = new Uint8Array(like.length);
  for (let y = 1; y < height - 1; y++) {
    for (let x = 0; x < width; x++) {
      const [left, right] = [x > 0 ? -1 : 0, x < width - 1 ? 1 : 0];
      let all = 1;
      for (let row = (y - 1) * width + x; row <= (y + 1) * width + x; row += width)
        all &= like[row + left] & like[row] & like[row + right];
      solid[y * width + x] = all;
    }
  }
  return solid;
}

/** Pixels with those around them that look like sky. */
function regrown(pixels: Int32Array, like: Uint8Array, width: number): Int32Array {
  const grown = new Set<number>();
  for (const i of pixels) {
    const x = i % width;
    for (let row = i - width; row <= i + width; row += width) {
      for (let to = row - (x > 0 ? 1 : 0); to <= row + (x < width - 1 ? 1 : 0); to++)
        if (like[to]) grown.add(to);
    }
  }
  return Int32Array.from(grown);
}

/**
 * Patches at the plate's upper edge that are sky: the largest, and what may be sky beside it. What is none of it goes from `like`: slates and
 * concrete do not go on behind wires either.
 */
function patchesAlong(features: PlateFeatures, like: Uint8Array): Int32Array[] {
  const { width, height, softLightness, b, texture } = features;
  const room = new Int32Array(like.length);
  const told = (allowed: Uint8Array, row: number): Patch[] => {
    const seen = new Uint8Array(like.length);
    const patches: Patch[] = [];
    for (let seed = row * width; seed < (row + 1) * width; seed++) {
      if (allowed[seed] !== 1 || seen[seed]) continue;
      const pixels = room.slice(0, flood(room, allowed, width, height, seed));
      for (const i of pixels) seen[i] = 1;
      const mean = (plane: Float32Array) => pixels.reduce((sum, i) => sum + plane[i], 0) / pixels.length;
      patches.push({ pixels, texture: mean(texture), lightness: mean(softLightness), b: mean(b) });
    }
    return patches;
  };
  const sky: Int32Array[] = [];
  const broad = told(solidOf(like, width, height), 1);
  const largest = broad.reduce<Patch | undefined>(
    (best, patch) => (best && best.pixels.length >= patch.pixels.length ? best : patch),
    undefined,
  );
  const taken = new Uint8Array(like.length);
  const sort = (patch: Patch, pixels: Int32Array) => {
    const isSky = !largest || isSkyBeside(patch, largest);
    if (isSky) sky.push(pixels);
    for (const i of pixels) taken[i] = isSky ? 1 : 2;
  };
  const grown = broad.map((patch) => [patch, regrown(patch.pixels, like, width)] as const);
  for (const [patch, pixels] of grown) sort(patch, pixels);
  // What is left are slivers, as sky between branches is.
  const left = like.map((is, i) => (is && !taken[i] ? 1 : 0));
  for (const patch of told(left, 0)) sort(patch, patch.pixels);
  for (let i = 0; i < like.length; i++) if (taken[i] === 2) like[i] = 0;
  return sky;
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
  const room = new Int32Array(width * height);
  const open: number[] = [];
  const patchAt = (seed: number) => room.subarray(0, flood(room, like, width, height, seed));
  const take = (pixels: Int32Array) => {
    for (const i of pixels) {
      sky[i] = 1;
      open.push(i);
    }
  };
  for (const pixels of patchesAlong(features, like)) take(pixels);
  // What goes on alike behind a wire, a mast or a lamp-post is sky too.
  const leaps = leapsOver(Math.max(7, Math.round(OVER_THIN.leap * width)), width);
  while (open.length > 0) {
    const from = open.pop()!;
    for (const { dx, by } of leaps) {
      const [x, to] = [(from % width) + dx, from + by];
      if (x < 0 || x >= width || to < 0 || to >= sky.length || sky[to] || !like[to]) continue;
      const isAlike = hypot(a[to] - a[from], b[to] - b[from]) < OVER_THIN.color;
      if (isAlike && Math.abs(softLightness[to] - softLightness[from]) < OVER_THIN.lightness)
        take(patchAt(to));
    }
  }
  for (let step = 0; step < OVER_EDGE; step++) growInto(sky, pales, width);
  takeClouds(features, sky, over);
  spreadBetweenLeaves(features, sky, over);
  // Behind masts and wires a cloud may be amid sky only now.
  takeClouds(features, sky, over);
  fillHoles(sky, width, height, SKY.largestHole * sky.length);
  said?.forEach((code, i) => {
    if (code) sky[i] = code === codeOf('sky') ? 1 : 0;
  });
  return sky;
}
