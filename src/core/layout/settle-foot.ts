import { linearToOklab } from '../color/linear-to-oklab';
import type { PlatePoint } from '../geometry/camera';
import { median } from '../plane/median';
import type { RgbPlanes } from '../plane/plane';
import { LIGHTNESS_WEIGHT, type Tone } from '../survey/ground-tones';
import { onSlope, slopeOf, type Side } from './wall-side';

/** What a small copy of the plate says about the lie of the land: coverages by ground and sky, 0 to 1. */
export interface LandCover {
  width: number;
  height: number;
  ground: Float32Array;
  sky: Float32Array;
}

/** The same with what the plate shows there, linear light. */
export interface SeenCover extends LandCover {
  plate: RgbPlanes;
}

/** Ground begins under a foot within so many times the foot's depth under the horizon, in half of its columns, about along one slope. */
const GROUND = { within: 2.2, share: 0.5, alike: 0.08 } as const;

/** A foot moves down to where ground begins if that is so many times as deep; strips beside it are compared over such a share of its depth. */
const MOVED = 1.1;
const STRIP = 0.3;

/** A foot as it is seen, from the left to the right. */
type Foot = readonly [PlatePoint, PlatePoint];

/**
 * The slope of a wall's foot: that on which its uprights end, or farther down that at which ground begins, where all between looks like the
 * wall. Undefined where no ground begins under it.
 */
export function settleFoot(own: Side, foot: Foot, slope: number, cover: SeenCover): number | undefined {
  const begins = whereGroundBegins(own, foot, slope, cover);
  if (begins === undefined) return undefined;
  return begins > MOVED * slope && isOfWall(own, foot, [slope, begins], cover) ? begins : slope;
}

/** The slope at which ground begins under a foot, or that of the foot where ground begins here and there; undefined where it does not. */
function whereGroundBegins(
  own: Side,
  [a, b]: Foot,
  slope: number,
  { width, height, ground }: LandCover,
): number | undefined {
  const begins: number[] = [];
  let all = 0;
  for (let x = Math.floor(Math.max(0, a.u) * width); x < Math.min(width, b.u * width); x++) {
    const u = (x + 0.5) / width;
    const from = Math.max(0, Math.floor(onSlope(own, u, slope).v * height));
    const until = Math.min(height - 1, Math.ceil(onSlope(own, u, GROUND.within * slope).v * height));
    if (from >= height) continue;
    all++;
    let y = from;
    while (y <= until && !(ground[y * width + x] > 0.5)) y++;
    if (y <= until) begins.push(Math.max(slope, slopeOf(own, { u, v: (y + 0.5) / height })));
  }
  if (all === 0) return slope;
  if (begins.length < GROUND.share * all) return undefined;
  const middle = median(begins);
  const agreed = begins.filter((one) => Math.abs(Math.log(one / middle)) < GROUND.alike).length;
  return agreed > GROUND.share * begins.length ? middle : slope;
}

/** Whether what lies between two slopes looks like the wall over it, rather than like the ground under it. */
function isOfWall(own: Side, foot: Foot, [upper, lower]: [number, number], cover: SeenCover) {
  const over = toneBetween(own, foot, (1 - STRIP) * upper, upper / (1 + STRIP / 4), cover);
  const between = toneBetween(own, foot, upper * (1 + STRIP / 8), lower / (1 + STRIP / 8), cover);
  const under = toneBetween(own, foot, lower * (1 + STRIP / 4), lower * (1 + STRIP), cover);
  const apart = (p: Tone, q: Tone) => Math.hypot(...p.map((value, c) => value - q[c]));
  return apart(between, over) < apart(between, under);
}

/** The mean tone of what lies between two slopes under the horizon, along a foot; Oklab, lightness weighed down. */
function toneBetween(own: Side, [a, b]: Foot, from: number, to: number, cover: SeenCover): Tone {
  const { width, height, plate } = cover;
  const sum = [0, 0, 0];
  let count = 0;
  for (let x = Math.floor(Math.max(0, a.u) * width); x < Math.min(width, b.u * width); x++) {
    const u = (x + 0.5) / width;
    const [first, last] = [from, to].map((slope) => Math.round(onSlope(own, u, slope).v * height));
    for (let y = Math.max(0, first); y < Math.min(height, last); y++) {
      const i = y * width + x;
      const tone = linearToOklab([plate.r[i], plate.g[i], plate.b[i]]);
      tone.forEach((value, c) => (sum[c] += (c === 0 ? LIGHTNESS_WEIGHT : 1) * value));
      count++;
    }
  }
  const [l, p, q] = sum.map((value) => value / Math.max(1, count));
  return [l, p, q];
}
