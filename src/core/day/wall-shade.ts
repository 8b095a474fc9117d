import { LUMINANCE } from '../color/luminance';
import { followEdges } from '../matte/follow-edges';
import { bilinearRow } from '../plane/bilinear-row';
import { createBoxBlur } from '../plane/box-blur';
import { lineCoverageAt } from '../plane/line-coverage-at';
import type { RgbPlanes } from '../plane/plane';
import type { Region } from '../plane/region';
import { smoothStep } from '../plane/smooth-step';
import { BLACK } from './even-out';
import { tonesOf } from './wall-tones';

/** What lies on shaded walls, on a small copy: coverage as local lines, and how many stops to lift it from which level. */
export interface WallShade {
  width: number;
  height: number;
  slope: Float32Array;
  offset: Float32Array;
  stops: Float32Array;
  /** What is most seen of the wall, stops. */
  level: Float32Array;
}

/** How far stops and level are carried on beyond a wall's edge, fraction of the width: its coverage is as soft as the plate. */
const BEYOND = 0.02;

/**
 * From how many stops over the level of its wall on a place is lifted less, since the sun may shine on it all the same, or the sky
 * mirror in it; and over how many times the wall's shade that goes on: wide enough for what is brighter to stay so.
 */
const LIT = { from: 0.5, wide: 1.7 } as const;

/**
 * How much more a stop of sun is in red than in green, and in green than in blue: what shines into the shade is a sky of some
 * 12,000 K and ground that the sun lights; on what is lit the sun shines as well, 5,500 K (CIE daylight).
 */
const WARMER = 0.1;

const CHANNELS = ['r', 'g', 'b'] as const;

/**
 * Finds what lies on shaded walls, on a small copy of a plate.
 *
 * @param out planes of the plate's size
 * @param seen which piece of a shaded wall each pixel shows, from 1 on, 0 for none
 * @param stops by how many each piece is darker than if the sun shone on it
 */
export function findWallShade(
  out: WallShade,
  plate: RgbPlanes,
  seen: Uint16Array,
  stops: readonly number[],
): void {
  const { width, height } = plate;
  const tones = tonesOf(plate, seen, stops.length);
  const cover = Float32Array.from(seen, (k) => (k > 0 ? 1 : 0));
  const { slope, offset } = followEdges(plate, cover);
  out.slope.set(slope);
  out.offset.set(offset);
  const blur = createBoxBlur(width, height, Math.max(2, Math.round(BEYOND * width)));
  const weight = new Float32Array(width * height);
  blur(weight, cover);
  const carryOn = (to: Float32Array, of: (k: number) => number) => {
    const own = Float32Array.from(seen, (k) => (k > 0 ? of(k - 1) : 0));
    blur(to, own);
    for (let i = 0; i < to.length; i++) to[i] = seen[i] > 0 ? own[i] : weight[i] > 0 ? to[i] / weight[i] : 0;
  };
  carryOn(out.stops, (k) => stops[k]);
  carryOn(out.level, (k) => tones[k].level);
}

/**
 * A plate with its shaded walls as bright as if the sun shone on them. What is far brighter than the rest of its wall stays: sun
 * that falls on it here and there, and panes that mirror the sky. `out` may be the plate.
 *
 * @param shade found on a small copy
 */
export function liftWalls(out: RgbPlanes, plate: RgbPlanes, shade: WallShade, region: Region): void {
  const row = () => new Float32Array(region.width);
  const [stops, level, slope, offset] = [row(), row(), row(), row()];
  const { width, height } = shade;
  const read = (to: Float32Array, data: Float32Array, y: number) =>
    bilinearRow(to, { width, height, data }, region, y);
  if (out !== plate) for (const name of CHANNELS) out[name].set(plate[name]);
  for (let y = 0; y < region.height; y++) {
    read(stops, shade.stops, y);
    // Most of a picture lies on no shaded wall.
    if (!stops.some((value) => value > 0)) continue;
    read(level, shade.level, y);
    read(slope, shade.slope, y);
    read(offset, shade.offset, y);
    for (let x = 0, i = y * region.width; x < region.width; x++, i++) {
      if (stops[x] === 0) continue;
      const light = LUMINANCE[0] * out.r[i] + LUMINANCE[1] * out.g[i] + LUMINANCE[2] * out.b[i];
      const cover = lineCoverageAt(slope[x], offset[x], light);
      if (cover === 0) continue;
      const over = Math.log(BLACK + Math.max(0, light)) / Math.LN2 - level[x];
      const lift = cover * stops[x] * (1 - smoothStep(LIT.from, LIT.from + LIT.wide * stops[x], over));
      const [brighter, warmer] = [Math.exp(Math.LN2 * lift), Math.exp(Math.LN2 * WARMER * lift)];
      out.r[i] *= brighter * warmer;
      out.g[i] *= brighter;
      out.b[i] *= brighter / warmer;
    }
  }
}
