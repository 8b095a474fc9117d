import { hypot } from '../plane/hypot';
import type { PlateFeatures } from './plate-features';
import { BUSIEST } from './sky-looks';
import { patchesAt, solidOf, type SkyPatch } from './sky-patches';

/**
 * Blue sky behind branches: least share of the plate; Oklab b up to which it is plainly blue; how much stronger its colour and how much darker it
 * may be, and how far its hue may be turned, sine; how calm and how whole it is.
 */
const BLUE = {
  ...{ least: 0.004, from: -0.03, stronger: 0.01, darker: 0.06, turned: 0.2, busiest: 0.02, whole: 0.7 },
} as const;

/** Share of what lies over a patch that is as busy as branches are. */
const BRANCHES = 0.5;

/** Whether a patch is as blue as the sky that is known, or paler and lighter, as sky is toward the horizon. */
function isOfSky(patch: SkyPatch, known: SkyPatch): boolean {
  const [own, theirs] = [hypot(patch.a, patch.b), hypot(known.a, known.b)];
  if (patch.b > BLUE.from || known.b > BLUE.from) return false;
  const sine = Math.abs(patch.a * known.b - patch.b * known.a) / (own * theirs);
  const isPaler = own < theirs + BLUE.stronger && patch.lightness > known.lightness - BLUE.darker;
  return isPaler && sine < BLUE.turned && patch.whole > BLUE.whole && patch.texture < BLUE.busiest;
}

/** Share of what lies between a patch and the sky or the plate's edge over it that is as busy as branches are. */
function busyOver({ width, texture }: PlateFeatures, pixels: Int32Array, sky: Uint8Array): number {
  const top = new Map<number, number>();
  for (const i of pixels) top.set(i % width, Math.min(i, top.get(i % width) ?? Infinity));
  let [busy, all] = [0, 0];
  for (const from of top.values()) {
    for (let i = from - width; i >= 0 && !sky[i]; i -= width) {
      all++;
      if (texture[i] > BUSIEST) busy++;
    }
  }
  return all > 0 ? busy / all : 0;
}

/**
 * Patches of sky that branches cut off from the plate's upper edge: large, plainly blue like the sky that is known, and under something busy. A
 * house that is painted blue lies under its roof.
 *
 * @param like 1 for what looks like sky @param sky 1 for what is known to be
 */
export function skyBehind(
  features: PlateFeatures,
  like: Uint8Array,
  sky: Uint8Array,
  known: SkyPatch,
): SkyPatch[] {
  const { width, height } = features;
  const open = like.map((is, i) => (is && !sky[i] ? 1 : 0));
  return patchesAt(features, solidOf(open, width, height)).filter(
    (patch) =>
      patch.pixels.length > BLUE.least * sky.length &&
      isOfSky(patch, known) &&
      busyOver(features, patch.pixels, sky) > BRANCHES,
  );
}
