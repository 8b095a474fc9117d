import { LUMINANCE } from '../color/luminance';
import { bilinearRow } from '../plane/bilinear-row';
import { clamp } from '../plane/clamp';
import type { RgbPlanes } from '../plane/plane';
import type { Region } from '../plane/region';
import { smoothStep } from '../plane/smooth-step';
import { SKY_TONES, type SkyTones } from './sky-tones';

/** How different land and sky must be, as a share of the sky, before colour tells them apart: not at all, and surely. */
const APART = { none: 0.08, sure: 0.3 } as const;

/** Within the sky, what is up to so much land is a cloud, and from so much on a wire, a bird, a leaf. */
const THING = { from: 0.15, to: 0.5 } as const;

/** Within dark land, what is as the sky to within this share of it is sky that shows through; and how much sky must lie around. */
const THROUGH = { same: 0.12, other: 0.4, around: 0.1 } as const;

/** How dark land must be for that, as a share of the sky's light: surely, and not at all. */
const DARK_LAND = { surely: 0.25, not: 0.6 } as const;

/** How far a colour lies beside the mixtures of land and sky before it is a thing of its own, as a share of the sky. */
const ASTRAY = { from: 0.12, to: 0.3 } as const;

/** How far a sky's clouds sink below its mean, as a share of it, before colours no longer tell: not at all, and surely even. */
const UNEVEN = { from: 0.45, to: 0.75 } as const;

/** From where on a hue is none of the sky's; how much deeper than the sky around a sky may be, and how dark at least to tell. */
const FOREIGN = { from: 0.3, to: 0.6, deepest: 1.4, darkest: 0.05 } as const;

/** Coverage by land up to which its colour is that of the land around, and from which it is read at the place itself. */
const READ = { from: 0.15, to: 0.6 } as const;

const lightOf = (color: ArrayLike<number>) =>
  LUMINANCE[0] * color[0] + LUMINANCE[1] * color[1] + LUMINANCE[2] * color[2];

/** How much darker land must be than the sky for its edge to be held: surely, and not at all; and to how many times the land around. */
const DARKER = { surely: 0.5, not: 0.85 } as const;
const HELD = 1.35;

/** What the small copy says of one place. */
export interface Beside {
  sky: Float64Array;
  land: Float64Array;
  /** Weights of a place that surely is sky, surely land; and how much sky lies around. */
  withinSky: number;
  withinLand: number;
  nearSky: number;
  /** Luminance that the sky's own clouds do not fall below. */
  floor: number;
  /** How even the sky close by is, 0 to 1. */
  even: number;
  /** Coverage by land as the survey found it. */
  found: number;
}

/**
 * Coverage by land of a colour of the plate: at the skyline the share of the way from the sky's colour to the land's (what a mixed pixel
 * is), where the two can be told apart; within the sky only what is clearly a thing; within land all but sky that shows through.
 */
export function landShare(plate: ArrayLike<number>, beside: Beside): number {
  const { sky, land, withinSky, withinLand, nearSky, floor, even, found } = beside;
  if (withinLand > 0.999 && nearSky < 1e-3) return 1;
  const [light, landLight] = [lightOf(plate), lightOf(land)];
  const skyLight = lightOf(sky) + 1e-4;
  // Of clouds and blue between them, the one that comes nearest to what is seen.
  const shade = clamp(light / skyLight, Math.max(0, Math.min(1, even)), 1);
  let along = 0;
  let apart = 1e-12;
  for (let c = 0; c < 3; c++) {
    const way = land[c] - shade * sky[c];
    along += (plate[c] - shade * sky[c]) * way;
    apart += way * way;
  }
  const share = along / apart;
  let astray = 0;
  let change = 0;
  for (let c = 0; c < 3; c++) {
    const moved = plate[c] - shade * sky[c];
    const off = moved - share * (land[c] - shade * sky[c]);
    astray += off * off;
    change += (plate[c] - sky[c]) ** 2;
  }
  const told = smoothStep(APART.none, APART.sure, Math.sqrt(apart) / skyLight);
  // Where the sky is even, colour tells how far a mixed pixel is land; what is brighter than that is sky, where its haze is white.
  const isEven = smoothStep(UNEVEN.from, UNEVEN.to, even);
  const own =
    light < skyLight ? isEven * smoothStep(ASTRAY.from, ASTRAY.to, Math.sqrt(astray) / skyLight) : 0;
  const mixed = Math.max(clamp(share, 0, 1), own);
  const trust = told * isEven;
  const between = trust * mixed + (1 - trust) * Math.max(found, foreign(plate, light, sky, skyLight));
  const below = (floor - light) / Math.max(1e-4, floor - landLight);
  const thing = floor > landLight ? told * smoothStep(THING.from, THING.to, below) : 0;
  const gap =
    smoothStep(0, THROUGH.around, nearSky) *
    (1 - smoothStep(THROUGH.same, THROUGH.other, Math.sqrt(change) / skyLight)) *
    (1 - smoothStep(DARK_LAND.surely, DARK_LAND.not, landLight / skyLight));
  const unsure = Math.max(0, 1 - withinSky - withinLand);
  return clamp(withinSky * thing + withinLand * (1 - gap) + unsure * between, 0, 1);
}

/** How far a colour's hue lies beside all between the sky's and white, 0 to 1: no cloud has it. */
function foreign(plate: ArrayLike<number>, light: number, sky: ArrayLike<number>, skyLight: number): number {
  if (light < FOREIGN.darkest * skyLight) return 0;
  let along = 0;
  let square = 1e-6;
  for (let c = 0; c < 3; c++) {
    const hue = sky[c] / skyLight - 1;
    along += (plate[c] / light - 1) * hue;
    square += hue * hue;
  }
  const tint = clamp(along / square, 0, FOREIGN.deepest);
  let off = 0;
  for (let c = 0; c < 3; c++) off += (plate[c] / light - 1 - tint * (sky[c] / skyLight - 1)) ** 2;
  return smoothStep(FOREIGN.from, FOREIGN.to, Math.sqrt(off));
}

/** What is left of the plate without the day's sky: coverage by land, and the land's own colour where both are mixed. */
export interface Skyline extends RgbPlanes {
  land: Float32Array;
}

/**
 * The skyline of a region. Coverage and colours of mixed pixels follow the plate at its own size; what lies on either side is read off the
 * small copy, so that every size and part of a picture agree.
 *
 * @param plate the region of the plate
 * @param found coverage by land as the survey found it, of the region
 */
export function skyline(
  out: Skyline,
  plate: RgbPlanes,
  found: Float32Array,
  tones: SkyTones & { width: number; height: number },
  region: Region,
): void {
  const { width, height } = tones;
  const rows = Object.fromEntries(
    SKY_TONES.map((name) => [name, new Float32Array(region.width)]),
  ) as unknown as SkyTones;
  const seen = new Float64Array(3);
  const beside: Beside = {
    ...{ sky: new Float64Array(3), land: new Float64Array(3) },
    ...{ withinSky: 0, withinLand: 0, nearSky: 0, floor: 0, even: 0, found: 0 },
  };
  for (let y = 0, i = 0; y < region.height; y++) {
    for (const name of SKY_TONES) bilinearRow(rows[name], { width, height, data: tones[name] }, region, y);
    for (let x = 0; x < region.width; x++, i++) {
      seen[0] = plate.r[i];
      seen[1] = plate.g[i];
      seen[2] = plate.b[i];
      beside.sky[0] = rows.skyR[x];
      beside.sky[1] = rows.skyG[x];
      beside.sky[2] = rows.skyB[x];
      beside.land[0] = rows.landR[x];
      beside.land[1] = rows.landG[x];
      beside.land[2] = rows.landB[x];
      beside.withinSky = rows.withinSky[x];
      beside.withinLand = rows.withinLand[x];
      beside.nearSky = rows.nearSky[x];
      beside.floor = rows.floor[x];
      beside.even = rows.even[x];
      beside.found = found[i];
      const share = landShare(seen, beside);
      out.land[i] = share;
      const read = smoothStep(READ.from, READ.to, share);
      const [skyLight, landLight] = [lightOf(beside.sky), lightOf(beside.land)];
      // Beside a brighter sky what is far brighter than the land around has the sky in it.
      const unsure = (1 - beside.withinLand) * (1 - smoothStep(UNEVEN.from, UNEVEN.to, beside.even));
      const held = unsure * (1 - smoothStep(DARKER.surely, DARKER.not, landLight / Math.max(1e-4, skyLight)));
      out.r[i] = ownColor(seen[0], beside.sky[0], beside.land[0], share, read, held);
      out.g[i] = ownColor(seen[1], beside.sky[1], beside.land[1], share, read, held);
      out.b[i] = ownColor(seen[2], beside.sky[2], beside.land[2], share, read, held);
    }
  }
}

/**
 * A channel of the land's own colour: of what is seen without the sky in it, or where little is seen, of the land around.
 *
 * @param held how far it is held near the land around, 0 to 1
 */
function ownColor(
  seen: number,
  sky: number,
  land: number,
  share: number,
  read: number,
  held: number,
): number {
  if (share > 0.999 && held === 0) return seen;
  const freed = Math.max(0, seen - (1 - share) * sky) / Math.max(share, READ.from);
  // A mixture lies between both.
  const bound = land < sky ? Math.min(freed, seen) : freed;
  const own = land + read * (bound - land);
  return own - held * Math.max(0, own - HELD * land);
}
