import { LUMINANCE } from '../color/luminance';
import { clamp } from '../plane/clamp';
import { smoothStep } from '../plane/smooth-step';

/**
 * A place of the skyline as numbers side by side, so that a loop over pixels makes nothing anew: its own colour, the colours that the sky
 * and the land would have there; the weights of a place that surely is sky, surely land; how much sky lies around; the luminance that the
 * sky's own clouds do not fall below; how even the sky close by is; coverage by leaves, and by land as the survey found it.
 */
export const PLACE = {
  ...{ own: 0, sky: 3, land: 6 },
  ...{ withinSky: 9, withinLand: 10, nearSky: 11, floor: 12, even: 13, leaves: 14, found: 15 },
  count: 16,
} as const;

/** How different land and sky must be, as a share of the sky, before colour tells them apart: not at all, and surely. */
export const APART = { none: 0.08, sure: 0.3 } as const;

/**
 * Within the sky, what is up to so much land is a cloud, and from so much on a wire, a bird, a leaf. Land that is lighter than this share of
 * the clouds counts as if it were so dark: against it, grain would be things.
 */
export const THING = { from: 0.15, to: 0.5, lightest: 0.5 } as const;

/** Within dark land, what is as the sky to within this share of it is sky that shows through; and how much sky must lie around. */
export const THROUGH = { same: 0.12, other: 0.4, around: 0.1 } as const;

/** How dark land must be for that, as a share of the sky's light: surely, and not at all. */
export const DARK_LAND = { surely: 0.25, not: 0.6 } as const;

/**
 * Between leaves sky is what is so many times as light as they are, and as blue as white, or bluer: blue over the mean of red and green, as a
 * share of the light. A cloud beside a blue sky, or the blue beside a cloud, is no other than sky there.
 */
export const BETWEEN_LEAVES = { lighter: { from: 1.3, to: 2 }, bluer: { from: -0.15, to: 0.05 } } as const;

/** How far a colour lies beside the mixtures of land and sky before it is a thing of its own, as a share of the sky. */
export const ASTRAY = { from: 0.12, to: 0.3 } as const;

/** How dark such a thing is at least against the sky's clouds: surely, and not at all. What is lighter may be grain. */
export const OWN_DARK = { surely: 0.8, not: 1.05 } as const;

/** How far a sky's clouds sink below its mean, as a share of it, before colours no longer tell: not at all, and surely even. */
export const UNEVEN = { from: 0.45, to: 0.75 } as const;

/** From where on a hue is none of the sky's; how much deeper than the sky around a sky may be, and how dark at least to tell. */
export const FOREIGN = { from: 0.3, to: 0.6, deepest: 1.4, darkest: 0.05 } as const;

/** From this weight on a place is surely what it is. */
export const SURELY = 0.999;

/** Up to this share of sky around a place there is none near it. */
export const NO_SKY = 1e-3;

/** Luminance of one of a place's colours. */
export const lightAt = (place: Float64Array, color: number): number =>
  LUMINANCE[0] * place[color] + LUMINANCE[1] * place[color + 1] + LUMINANCE[2] * place[color + 2];

/** How far a sky tells by its evenness, 0 to 1. */
export const evenness = (place: Float64Array): number =>
  smoothStep(UNEVEN.from, UNEVEN.to, place[PLACE.even]);

/** How far a colour's hue lies beside all between the sky's and white, 0 to 1: no cloud has it. */
function foreign(place: Float64Array, light: number, skyLight: number): number {
  if (light < FOREIGN.darkest * skyLight) return 0;
  let along = 0;
  let square = 1e-6;
  for (let c = 0; c < 3; c++) {
    const hue = place[PLACE.sky + c] / skyLight - 1;
    along += (place[c] / light - 1) * hue;
    square += hue * hue;
  }
  const tint = clamp(along / square, 0, FOREIGN.deepest);
  let off = 0;
  for (let c = 0; c < 3; c++)
    off += (place[c] / light - 1 - tint * (place[PLACE.sky + c] / skyLight - 1)) ** 2;
  return smoothStep(FOREIGN.from, FOREIGN.to, Math.sqrt(off));
}

/** The sum of a colour's differences from the sky's; no shorter than the straight way. */
const changeFromSky = (place: Float64Array): number =>
  Math.abs(place[0] - place[PLACE.sky]) +
  Math.abs(place[1] - place[PLACE.sky + 1]) +
  Math.abs(place[2] - place[PLACE.sky + 2]);

/** Whether land is so bright beside the sky that no gap in it would tell. */
export const isBrightLand = (landLight: number, skyLight: number): boolean =>
  landLight >= DARK_LAND.not * skyLight;

/** How surely a place between leaves is sky, 0 to 1. */
const betweenLeaves = (place: Float64Array, light: number, landLight: number): number => {
  const { lighter, bluer } = BETWEEN_LEAVES;
  const blue = (place[2] - (place[0] + place[1]) / 2) / Math.max(1e-4, light);
  return (
    place[PLACE.leaves] *
    smoothStep(lighter.from, lighter.to, light / Math.max(1e-4, landLight)) *
    smoothStep(bluer.from, bluer.to, blue)
  );
};

/** Whether a place within dark land is too unlike the sky to be a gap that it shows through: what is left would come to the same, later. */
const isSolid = (place: Float64Array): boolean =>
  place[PLACE.withinLand] > SURELY &&
  place[PLACE.leaves] === 0 &&
  changeFromSky(place) > Math.sqrt(3) * THROUGH.other * lightAt(place, PLACE.sky);

/**
 * Coverage by land of a place: at the skyline the share of the way from the sky's colour to the land's (what a mixed pixel is), where the
 * two can be told apart; within the sky only what is clearly a thing; within land all but sky that shows through. Of places that are plainly
 * land or sky it is not asked.
 */
export function landShare(place: Float64Array): number {
  if (isSolid(place)) return 1;
  const [light, landLight] = [lightAt(place, PLACE.own), lightAt(place, PLACE.land)];
  const skyLight = lightAt(place, PLACE.sky) + 1e-4;
  // Of clouds and blue between them, the one that comes nearest to what is seen.
  const shade = clamp(light / skyLight, clamp(place[PLACE.even], 0, 1), 1);
  let along = 0;
  let apart = 1e-12;
  for (let c = 0; c < 3; c++) {
    const day = shade * place[PLACE.sky + c];
    const way = place[PLACE.land + c] - day;
    along += (place[c] - day) * way;
    apart += way * way;
  }
  const share = along / apart;
  let astray = 0;
  let change = 0;
  for (let c = 0; c < 3; c++) {
    const day = shade * place[PLACE.sky + c];
    const off = place[c] - day - share * (place[PLACE.land + c] - day);
    astray += off * off;
    change += (place[c] - place[PLACE.sky + c]) ** 2;
  }
  const told = smoothStep(APART.none, APART.sure, Math.sqrt(apart) / skyLight);
  // Where the sky is even, colour tells how far a mixed pixel is land; what is brighter than that is sky, where its haze is white.
  const isEven = evenness(place);
  const floor = place[PLACE.floor];
  const isDark =
    1 - smoothStep(OWN_DARK.surely, OWN_DARK.not, light / Math.max(1e-4, Math.min(floor, skyLight)));
  const own = isDark * isEven * smoothStep(ASTRAY.from, ASTRAY.to, Math.sqrt(astray) / skyLight);
  const mixed = Math.max(clamp(share, 0, 1), own);
  const trust = told * isEven;
  const between = trust * mixed + (1 - trust) * Math.max(place[PLACE.found], foreign(place, light, skyLight));
  const below = (floor - light) / Math.max(1e-4, floor - Math.min(landLight, THING.lightest * floor));
  const thing = floor > landLight ? told * smoothStep(THING.from, THING.to, below) : 0;
  const leafy = place[PLACE.leaves] > 0 ? betweenLeaves(place, light, landLight) : 0;
  const same = 1 - smoothStep(THROUGH.same, THROUGH.other, Math.sqrt(change) / skyLight);
  const gap =
    smoothStep(0, THROUGH.around, place[PLACE.nearSky]) *
    Math.max(same, leafy) *
    (1 - smoothStep(DARK_LAND.surely, DARK_LAND.not, landLight / skyLight));
  const [inSky, inLand] = [place[PLACE.withinSky], place[PLACE.withinLand]];
  const unsure = Math.max(0, 1 - inSky - inLand);
  return clamp(inSky * thing + inLand * (1 - gap) + unsure * (1 - leafy) * between, 0, 1);
}
