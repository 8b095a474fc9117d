import { flood } from '../plane/flood';
import { hypot } from '../plane/hypot';
import { echoBelow } from './echo-below';
import type { PlateFeatures } from './plate-features';

/**
 * How busy a patch of sky may be against the broadest one, and beyond that, less where no colour tells it; least share of it from its top to
 * its lower end. A small one that is darker than the broadest by so much, and no
 * bluer by so much, is no sky either.
 */
const AS_CALM = {
  times: 1.8,
  over: 0.006,
  colorless: { times: 1.3, over: 0.002 },
  small: 0.05,
  darker: 0.1,
  bluer: 0.02,
  whole: 0.7,
} as const;

/** How much lighter, or bluer, makes a patch e times as likely to be sky, and busyness that counts as nothing: film has its grain. */
const LIKELY = { lighter: 0.3, bluer: 0.03, grain: 0.004 } as const;

/**
 * Share of the broadest patch's pixels that are less yellow, or less red, than what is said of it, and by how much sky may be beyond that. A
 * patch that is as yellow, or as red, is none of sky.
 */
const COLOR = { share: 0.75, beyond: 0.01, yellowest: 0.045, reddest: 0.03 } as const;

/**
 * Sky comes back below its end no more than this; what comes back more, and is of another colour, Oklab, is a facade. Sky is first looked for
 * among patches of such a size, share of the plate.
 */
const ECHO = { most: 0.15, color: 0.03, least: 0.001 } as const;

/** A patch of what looks like sky, with the means of what it looks like. */
export interface SkyPatch {
  pixels: Int32Array;
  texture: number;
  lightness: number;
  a: number;
  b: number;
  /** Share of it in what lies from its top to its lower end, column by column: sky has no windows. */
  whole: number;
}

/** Whether a patch may be sky beside the broadest one: slates and concrete are as grey as clouds, but not as calm. */
export function isSkyBeside(patch: SkyPatch, broadest: SkyPatch, oneHue: boolean): boolean {
  const { times, over } = oneHue ? AS_CALM.colorless : AS_CALM;
  if (patch.texture > times * broadest.texture + over) return false;
  if (patch.whole < AS_CALM.whole) return false;
  if (patch.pixels.length > AS_CALM.small * broadest.pixels.length) return true;
  const isDarker = patch.lightness < broadest.lightness - AS_CALM.darker;
  return !isDarker || patch.b < broadest.b - AS_CALM.bluer;
}

/** Share of some pixels in what lies from the top to the lower end of them, column by column. */
function wholeOf(pixels: Int32Array, width: number, height: number): number {
  const top = new Int32Array(width).fill(height);
  const end = new Int32Array(width).fill(-1);
  for (const i of pixels) {
    const [x, y] = [i % width, Math.floor(i / width)];
    top[x] = Math.min(top[x], y);
    end[x] = Math.max(end[x], y);
  }
  return pixels.length / top.reduce((sum, y, x) => sum + Math.max(0, end[x] - y + 1), 0);
}

/** What some pixels look like. */
export function patchOf({ width, height, ...features }: PlateFeatures, pixels: Int32Array): SkyPatch {
  const mean = (plane: Float32Array) => pixels.reduce((sum, i) => sum + plane[i], 0) / pixels.length;
  const { softLightness, a, b, texture } = features;
  return {
    ...{ pixels, texture: mean(texture), lightness: mean(softLightness), a: mean(a), b: mean(b) },
    whole: wholeOf(pixels, width, height),
  };
}

/** The patches of what is allowed that reach a row, or all of them. */
export function patchesAt(features: PlateFeatures, allowed: Uint8Array, row?: number): SkyPatch[] {
  const { width, height } = features;
  const [from, to] = row === undefined ? [0, allowed.length] : [row * width, (row + 1) * width];
  const seen = new Uint8Array(allowed.length);
  const room = new Int32Array(allowed.length);
  const patches: SkyPatch[] = [];
  for (let seed = from; seed < to; seed++) {
    if (allowed[seed] !== 1 || seen[seed]) continue;
    const pixels = room.slice(0, flood(room, allowed, width, height, seed));
    for (const i of pixels) seen[i] = 1;
    patches.push(patchOf(features, pixels));
  }
  return patches;
}

/** Where all around a pixel is so: two patches that touch in a strait are two. Beyond the upper edge nothing is. */
export function solidOf(is: Uint8Array, width: number, height: number): Uint8Array {
  const solid = new Uint8Array(is.length);
  for (let y = 1; y < height - 1; y++) {
    for (let x = 0; x < width; x++) {
      const [left, right] = [x > 0 ? -1 : 0, x < width - 1 ? 1 : 0];
      let all = 1;
      for (let row = (y - 1) * width + x; row <= (y + 1) * width + x; row += width)
        all &= is[row + left] & is[row] & is[row + right];
      solid[y * width + x] = all;
    }
  }
  return solid;
}

/** The patch that is sky, if one is: of two that are as large the calmer one, the bluer one, the lighter one. */
export const broadestOf = (patches: readonly SkyPatch[]): SkyPatch | undefined => {
  const score = ({ pixels, texture, lightness, b, whole }: SkyPatch) =>
    (pixels.length * whole ** 2 * Math.exp(lightness / LIKELY.lighter - b / LIKELY.bluer)) /
    (LIKELY.grain + texture / Math.max(lightness, 0.1));
  return patches.reduce<SkyPatch | undefined>(
    (best, patch) => (best && score(best) >= score(patch) ? best : patch),
    undefined,
  );
};

/** Up to which red and yellow sky goes on, of what is calm and light: at least the limits that are given. */
export function colorsOfSky(
  features: PlateFeatures,
  calm: Uint8Array,
  least: { reddest: number; yellowest: number },
): { reddest: number; yellowest: number } {
  const { width, height, a, b } = features;
  const broadest = broadestOf(patchesAt(features, solidOf(calm, width, height), 1));
  if (!broadest || broadest.b > COLOR.yellowest || broadest.a > COLOR.reddest) return least;
  const { pixels } = broadest;
  const upper = (plane: Float32Array) =>
    Float32Array.from(pixels, (i) => plane[i]).sort()[Math.floor(COLOR.share * pixels.length)];
  return {
    reddest: Math.max(least.reddest, upper(a) + COLOR.beyond),
    yellowest: Math.max(least.yellowest, upper(b) + COLOR.beyond),
  };
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
 * Patches at the plate's upper edge that are sky: the broadest, and what may be sky beside it. What is none of it goes from `like`: slates and
 * concrete do not go on behind wires either.
 *
 * @param over 1 over the horizon
 */
export function skyPatches(features: PlateFeatures, like: Uint8Array, over: Uint8Array): SkyPatch[] {
  const { width, height } = features;
  const sky: SkyPatch[] = [];
  const broad = patchesAt(features, solidOf(like, width, height), 1);
  const comesBack = (patch: SkyPatch) => echoBelow(features, patch, like, over) > ECHO.most;
  const plain = broad.filter((patch) => patch.pixels.length > ECHO.least * like.length && !comesBack(patch));
  const broadest = broadestOf(plain) ?? broadestOf(broad);
  const taken = new Uint8Array(like.length);
  const isFacade = (patch: SkyPatch, beside: SkyPatch) =>
    hypot(patch.a - beside.a, patch.b - beside.b) > ECHO.color && comesBack(patch);
  const sort = (patch: SkyPatch, pixels: Int32Array) => {
    const isSky = !broadest || (isSkyBeside(patch, broadest, features.oneHue) && !isFacade(patch, broadest));
    if (isSky) sky.push({ ...patch, pixels });
    for (const i of pixels) taken[i] = isSky ? 1 : 2;
  };
  const grown = broad.map((patch) => [patch, regrown(patch.pixels, like, width)] as const);
  for (const [patch, pixels] of grown) sort(patch, pixels);
  // What is left are slivers, as sky between branches is.
  const left = like.map((is, i) => (is && !taken[i] ? 1 : 0));
  for (const patch of patchesAt(features, left, 0)) sort(patch, patch.pixels);
  for (let i = 0; i < like.length; i++) if (taken[i] === 2) like[i] = 0;
  return sky;
}
