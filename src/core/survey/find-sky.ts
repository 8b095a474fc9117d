import { isUnsaid } from '../geometry/ground';
import { fillHoles } from '../plane/fill-holes';
import { flood } from '../plane/flood';
import type { PlateFeatures } from './plate-features';
import { growOverEdge } from './grow-into';
import { codeOf, type SaidPlane } from './said';
import { skyBelow } from './sky-below';
import { BUSIEST, skyLooks, type SkyLooks } from './sky-looks';
import { skyBehind } from './sky-behind';
import { broadestOf, isSkyBeside, patchOf, skyPatches } from './sky-patches';
import { takeClouds } from './take-clouds';
import { hypot } from '../plane/hypot';

/** Holes in the sky up to this share of the plate are filled. */
const LARGEST_HOLE = 0.002;

/** How far sky is sought behind thin things, fraction of the width, and how alike it must be there. */
const OVER_THIN = { leap: 0.024, lightness: 0.03, color: 0.012 } as const;

/**
 * How far sky is followed into leaves, fraction of the width, and how much darker, lighter and otherwise coloured it may be there, step by
 * step: a pale cornice is lighter by more. From which Oklab b on it is plainly blue, and how much darker than a cloud beside it that may be.
 */
const THROUGH_LEAVES = {
  ...{ steps: 0.05, darker: 0.02, lighter: 0.05, color: 0.02 },
  ...{ blue: -0.03, bluesDarker: 0.2 },
} as const;

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
        const lighter = lightness[to] - lightness[from];
        const isLight = lighter > -THROUGH_LEAVES.darker && lighter < THROUGH_LEAVES.lighter;
        const isAlike = hypot(a[to] - a[from], b[to] - b[from]) < THROUGH_LEAVES.color;
        const isBlue =
          b[to] < THROUGH_LEAVES.blue && lightness[to] > lightness[from] - THROUGH_LEAVES.bluesDarker;
        if (texture[to] < BUSIEST || !(isBlue || (isLight && isAlike))) continue;
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

/** Takes the patches at the plate's upper edge, and what goes on alike behind wires, masts and lamp-posts, into `sky`. */
function takePatches(features: PlateFeatures, { like, over }: SkyLooks, sky: Uint8Array): void {
  const { width, height, softLightness, a, b, oneHue } = features;
  const room = new Int32Array(sky.length);
  const open: number[] = [];
  const take = (pixels: Int32Array) => {
    for (const i of pixels) {
      sky[i] = 1;
      open.push(i);
    }
  };
  const patches = skyPatches(features, like, over);
  const broadest = broadestOf(patches);
  for (const { pixels } of patches) take(pixels);
  if (broadest) for (const { pixels } of skyBehind(features, like, sky, broadest)) take(pixels);
  const leaps = leapsOver(Math.max(7, Math.round(OVER_THIN.leap * width)), width);
  while (open.length > 0) {
    const from = open.pop()!;
    for (const { dx, by } of leaps) {
      const [x, to] = [(from % width) + dx, from + by];
      if (x < 0 || x >= width || to < 0 || to >= sky.length || sky[to] || !like[to]) continue;
      const isAlike = hypot(a[to] - a[from], b[to] - b[from]) < OVER_THIN.color;
      if (!isAlike || Math.abs(softLightness[to] - softLightness[from]) > OVER_THIN.lightness) continue;
      const behind = patchOf(features, room.subarray(0, flood(room, like, width, height, to)));
      if (broadest && isSkyBeside(behind, broadest, oneHue)) take(behind.pixels);
      else for (const i of behind.pixels) like[i] = 0;
    }
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
  const { width, height } = features;
  const looks = skyLooks(features, horizon);
  const { over, pale } = looks;
  const sky = new Uint8Array(width * height);
  takePatches(features, looks, sky);
  growOverEdge(sky, pale, width);
  takeClouds(features, sky, over);
  spreadBetweenLeaves(features, sky, over);
  // Behind masts and wires a cloud may be amid sky only now.
  takeClouds(features, sky, over);
  if (isUnsaid(horizon)) skyBelow(features, sky, over);
  fillHoles(sky, width, height, LARGEST_HOLE * sky.length);
  said?.forEach((code, i) => {
    if (code) sky[i] = code === codeOf('sky') ? 1 : 0;
  });
  return sky;
}
