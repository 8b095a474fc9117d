/*
 * What the survey found of the lie of the land, and how long the way through haze is, four pixels at a time. The same as
 * src/core/relief/rasterize-ground.ts and through-haze.ts, 32-bit.
 */
import { luminance, ONE, splatAt, ZERO } from './film';
import {
  FARTHEST_GROUND, GROUND_CREASE, GROUND_DOWN, GROUND_EYE, GROUND_ROUGHNESS, GROUND_SHEEN, GROUND_TOP, GROUND_WATER,
  HAZE_FARTHEST, HAZE_TOP, PART, SMALL_BYTES, STEEPEST_RIPPLE,
} from './generated';
import { coverageAt, rootOf } from './line-coverage';
import { begin, readyAll, seenAt } from './small';

const LANES = f32x4(0, 1, 2, 3);
const TWO = f32x4.splat(2);
const HALF = f32x4.splat(0.5);
const LEAST_AHEAD = f32x4.splat(1e-6);
const FARTHEST = f32x4.splat(FARTHEST_GROUND);
const PER_FARTHEST = f32x4.splat(1 / FARTHEST_GROUND);
const PER_STEEPEST = f32x4.splat(1 / (STEEPEST_RIPPLE * STEEPEST_RIPPLE));
const NEAREST_HAZE = f32x4.splat(1 / HAZE_FARTHEST);
const FARTHEST_HAZE = f32x4.splat(HAZE_FARTHEST);
const PER_TOP = f32x4.splat(1 / HAZE_TOP);

/**
 * One axis, 0 to 2, of the rays of four pixels. `rays`: the first pixel's ray, and its steps to the right and down, in 64 bits: a row's are the
 * same in whichever part of a picture it is laid.
 */
@inline
function rayOf(rays: usize, axis: usize, along: v128, y: i32): v128 {
  const at = rays + (axis << 3);
  const first = f32x4.splat(<f32>(load<f64>(at) + <f64>y * load<f64>(at + 48)));
  return f32x4.add(first, f32x4.mul(along, f32x4.splat(<f32>load<f64>(at + 24))));
}

@inline
function aheadOf(rays: usize, along: v128, y: i32): v128 {
  return f32x4.pmax(LEAST_AHEAD, rayOf(rays, 1, along, y));
}

@inline
function put(planes: usize, which: usize, at: usize, value: v128): void {
  v128.store(<usize>load<u32>(planes + (which << 2)) + at, value);
}

@inline
function toward(from: v128, to: v128, share: v128): v128 {
  return f32x4.add(from, f32x4.mul(share, f32x4.sub(to, from)));
}

/** Lays what is found at four pixels. `root`: of their luminance; `small`: the survey's pictures, `wet`: where the ground shines, or 0. */
@inline
function layFour(
  planes: usize,
  wet: usize,
  small: usize,
  hasWater: bool,
  hasFolds: bool,
  params: usize,
  x: i32,
  y: i32,
  at: usize,
  line: usize,
  root: v128,
): void {
  const along = f32x4.add(f32x4.splat(<f32>x), LANES);
  const ahead = aheadOf(params, along, y);
  const rise = rayOf(params, 2, along, y);
  const eye = splatAt(params, GROUND_EYE);
  const v = f32x4.splat(<f32>(load<f64>(params + GROUND_TOP) + <f64>y * load<f64>(params + GROUND_TOP + 8)));
  const lower = f32x4.sub(seenAt(small + 4 * SMALL_BYTES, line), v);
  const footAhead = f32x4.pmax(LEAST_AHEAD, f32x4.add(ahead, f32x4.mul(lower, splatAt(params, GROUND_DOWN))));
  const footRise = f32x4.add(rise, f32x4.mul(lower, splatAt(params, GROUND_DOWN + 4)));
  const stands = f32x4.pmin(FARTHEST, f32x4.mul(f32x4.div(f32x4.neg(eye), footRise), footAhead));
  const standsAt = v128.bitselect(stands, FARTHEST, f32x4.lt(footRise, ZERO));
  const below = f32x4.lt(rise, ZERO);
  const nearness = v128.and(
    f32x4.pmax(f32x4.div(f32x4.neg(rise), eye), f32x4.mul(ahead, PER_FARTHEST)),
    below,
  );
  const ground = v128.and(coverageAt(seenAt(small, line), seenAt(small + SMALL_BYTES, line), root), below);
  const rest = f32x4.sub(ONE, ground);
  const norm = f32x4.sqrt(f32x4.add(f32x4.mul(ground, ground), f32x4.mul(rest, rest)));
  const sky = coverageAt(seenAt(small + 2 * SMALL_BYTES, line), seenAt(small + 3 * SMALL_BYTES, line), root);
  const land = f32x4.sub(ONE, sky);
  const water = hasWater
    ? coverageAt(seenAt(small + 5 * SMALL_BYTES, line), seenAt(small + 6 * SMALL_BYTES, line), root)
    : ZERO;
  let normalX = ZERO;
  let normalY = f32x4.div(f32x4.neg(rest), norm);
  let normalZ = f32x4.div(ground, norm);
  if (hasFolds) {
    const crease = toward(splatAt(params, GROUND_CREASE), splatAt(params, GROUND_WATER + 8), water);
    const ripple = f32x4.mul(ground, crease);
    const right = f32x4.mul(ripple, seenAt(small + 7 * SMALL_BYTES, line));
    const up = f32x4.mul(ripple, seenAt(small + 8 * SMALL_BYTES, line));
    const steep = f32x4.mul(f32x4.add(f32x4.mul(right, right), f32x4.mul(up, up)), PER_STEEPEST);
    const eased = f32x4.div(ONE, f32x4.sqrt(f32x4.add(ONE, steep)));
    const aside = f32x4.mul(eased, right);
    const tilt = f32x4.mul(eased, up);
    const isLevel = f32x4.gt(normalZ, HALF);
    const bentX = v128.bitselect(aside, f32x4.neg(f32x4.mul(aside, normalY)), isLevel);
    const bentY = f32x4.add(normalY, v128.and(tilt, isLevel));
    const bentZ = f32x4.add(normalZ, v128.andnot(tilt, isLevel));
    const square = f32x4.add(f32x4.add(f32x4.mul(bentX, bentX), f32x4.mul(bentY, bentY)), f32x4.mul(bentZ, bentZ));
    const perLong = f32x4.div(ONE, f32x4.sqrt(square));
    normalX = f32x4.mul(bentX, perLong);
    normalY = f32x4.mul(bentY, perLong);
    normalZ = f32x4.mul(bentZ, perLong);
  }
  put(planes, 0, at, f32x4.div(ONE, f32x4.add(f32x4.mul(ground, nearness), f32x4.mul(rest, f32x4.div(ahead, standsAt)))));
  put(planes, 1, at, normalX);
  put(planes, 2, at, normalY);
  put(planes, 3, at, normalZ);
  put(planes, 4, at, rest);
  put(planes, 5, at, f32x4.pmax(ZERO, f32x4.sub(f32x4.mul(TWO, land), ONE)));
  put(planes, 6, at, land);
  const shines = wet != 0 ? f32x4.mul(ground, v128.load(wet + at)) : ground;
  const dry = f32x4.mul(shines, splatAt(params, GROUND_SHEEN));
  put(planes, 7, at, toward(dry, f32x4.mul(ground, splatAt(params, GROUND_WATER + 4)), water));
  const roughness = toward(splatAt(params, GROUND_ROUGHNESS), splatAt(params, GROUND_WATER), water);
  put(planes, 8, at, f32x4.mul(roughness, roughness));
}

/**
 * Lays `rows` rows of a region of `width`, at least 4. `planes`: offsets of those of a relief, then plate r, g, b; of the way through haze
 * the land that was found is left. `small`: slope and offset of ground, of sky, feet, slope and offset of water, folds to the right and up.
 * `params`: rays, then as GROUND says in src/engine/kernels/layout.ts. `lines`: room for two lines of each small picture.
 */
export function layGround(
  planes: usize,
  wet: usize,
  small: usize,
  hasWater: bool,
  hasFolds: bool,
  params: usize,
  lines: usize,
  width: i32,
  rows: i32,
): void {
  const red = load<u32>(planes + 36);
  const green = load<u32>(planes + 40);
  const blue = load<u32>(planes + 44);
  for (let part = 0; part < width; part += PART) {
    // The last four of a row, or of a part, reach back over pixels that are done: they come to the same.
    const first = min<i32>(part, width - 4);
    const count = min<i32>(PART, width - first);
    begin(small, 9, lines);
    for (let y = 0; y < rows; y++) {
      readyAll(small, 5, y, first, count);
      if (hasWater) readyAll(small + 5 * SMALL_BYTES, 2, y, first, count);
      if (hasFolds) readyAll(small + 7 * SMALL_BYTES, 2, y, first, count);
      const row = <usize>(y * width + first) << 2;
      for (let x = 0; x < count; x += 4) {
        const column = min<i32>(x, count - 4);
        const line = <usize>column << 2;
        const at = row + line;
        const light = luminance(v128.load(red + at), v128.load(green + at), v128.load(blue + at));
        layFour(planes, wet, small, hasWater, hasFolds, params, first + column, y, at, line, rootOf(light));
      }
    }
  }
}

/**
 * How long the way through haze is at the pixels of `rows` rows. `distance` holds the land that was found; `skyline`: coverage by land
 * where one says it, or 0. `rays` as `layGround`'s.
 */
export function throughHaze(
  distance: usize,
  reach: usize,
  land: usize,
  skyline: usize,
  rays: usize,
  width: i32,
  rows: i32,
): void {
  for (let y = 0; y < rows; y++) {
    for (let x = 0; x < width; x += 4) {
      const column = min<i32>(x, width - 4);
      // The last four reach back over pixels that are done, in which nothing is left of the land that was found.
      const fresh = i32x4.ge_s(i32x4(0, 1, 2, 3), i32x4.splat(x - column));
      const at = <usize>(y * width + column) << 2;
      const along = f32x4.add(f32x4.splat(<f32>column), LANES);
      const aside = rayOf(rays, 0, along, y);
      const ahead = aheadOf(rays, along, y);
      const rise = rayOf(rays, 2, along, y);
      const ray = f32x4.sqrt(
        f32x4.add(f32x4.add(f32x4.mul(aside, aside), f32x4.mul(ahead, ahead)), f32x4.mul(rise, rise)),
      );
      const way = f32x4.mul(v128.load(reach + at), ray);
      const found = v128.load(distance + at);
      let through: v128;
      if (skyline != 0) {
        const share = v128.load(skyline + at);
        v128.store(land + at, share);
        through = v128.and(f32x4.mul(share, f32x4.pmin(FARTHEST_HAZE, way)), f32x4.ne(share, ZERO));
      } else {
        const perSky = f32x4.pmax(NEAREST_HAZE, f32x4.mul(f32x4.div(rise, ray), PER_TOP));
        const per = f32x4.add(f32x4.div(found, way), f32x4.mul(f32x4.sub(ONE, found), perSky));
        through = f32x4.div(ONE, per);
      }
      v128.store(distance + at, v128.bitselect(through, found, fresh));
    }
  }
}
