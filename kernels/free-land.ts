/* Land and sky told apart along the skyline, four pixels at a time. The same as src/core/sky/free-land.ts, 32-bit. */
import { luminance, ONE, ZERO } from './film';
import {
  LAND_ALL_OWN, LAND_BRIGHT, LAND_HELD, LAND_HELD_FROM, LAND_HELD_TO, LAND_NO_SKY, LAND_READ_FROM, LAND_READ_TO, LAND_SURELY, PART,
  TOLD_COUNT, TOLD_FLOOR, TOLD_LAND, TOLD_NEAR_SKY, TOLD_OFFSET, TOLD_SKY, TOLD_SLOPE, TOLD_WITHIN_LAND, TOLD_WITHIN_SKY,
} from './generated';
import { evennessAt, landShare, toldAt } from './land-share';
import { coverageAt, rootOf } from './line-coverage';
import { smoothStep } from './smooth-step';
import { begin, readyAll } from './small';

const SURELY = f32x4.splat(LAND_SURELY);
const NO_SKY = f32x4.splat(LAND_NO_SKY);
const BRIGHT = f32x4.splat(LAND_BRIGHT);
const ALL_OWN = f32x4.splat(LAND_ALL_OWN);
const HELD = f32x4.splat(LAND_HELD);
const LEAST_READ = f32x4.splat(LAND_READ_FROM);
const LEAST = f32x4.splat(1e-4);

/** Light of the three small pictures from one on. */
@inline
function lightOf(smalls: usize, which: usize, along: usize): v128 {
  return luminance(
    toldAt(smalls, which, along),
    toldAt(smalls, which + 1, along),
    toldAt(smalls, which + 2, along),
  );
}

/** Places that are plainly land, though sky may be near. */
@inline
function isLand(smalls: usize, along: usize): v128 {
  const within = f32x4.gt(toldAt(smalls, TOLD_WITHIN_LAND, along), SURELY);
  if (!v128.any_true(within)) return within;
  const alone = f32x4.lt(toldAt(smalls, TOLD_NEAR_SKY, along), NO_SKY);
  if (i32x4.all_true(v128.and(within, alone))) return within;
  const light = f32x4.mul(BRIGHT, lightOf(smalls, TOLD_SKY, along));
  return v128.and(within, v128.or(alone, f32x4.ge(lightOf(smalls, TOLD_LAND, along), light)));
}

/** A channel of the land's own colour. */
@inline
function ownColor(seen: v128, sky: v128, land: v128, share: v128, read: v128, held: v128): v128 {
  const rest = f32x4.pmax(ZERO, f32x4.sub(seen, f32x4.mul(f32x4.sub(ONE, share), sky)));
  const free = f32x4.div(rest, f32x4.pmax(share, LEAST_READ));
  // A mixture lies between both.
  const bound = v128.bitselect(f32x4.pmin(free, seen), free, f32x4.lt(land, sky));
  const own = f32x4.add(land, f32x4.mul(read, f32x4.sub(bound, land)));
  const over = f32x4.pmax(ZERO, f32x4.sub(own, f32x4.mul(HELD, land)));
  const all = f32x4.sub(own, f32x4.mul(held, over));
  return v128.bitselect(seen, all, v128.and(f32x4.gt(share, ALL_OWN), f32x4.eq(held, ZERO)));
}

/** A channel of the plate, of four pixels. */
@inline
function seenOf(planes: usize, channel: usize, at: usize): v128 {
  return v128.load(load<u32>(planes + 16 + (channel << 2)) + at);
}

/** Sets a channel of four pixels. */
@inline
function storeOf(planes: usize, channel: usize, at: usize, value: v128): void {
  v128.store(load<u32>(planes + (channel << 2)) + at, value);
}

/** Four pixels, `at` bytes from the first of each plane. */
@inline
function fourOf(planes: usize, smalls: usize, at: usize, along: usize): void {
  const light = luminance(seenOf(planes, 0, at), seenOf(planes, 1, at), seenOf(planes, 2, at));
  const inSky = f32x4.gt(toldAt(smalls, TOLD_WITHIN_SKY, along), SURELY);
  const clear = v128.and(inSky, f32x4.ge(light, toldAt(smalls, TOLD_FLOOR, along)));
  const plain = v128.andnot(isLand(smalls, along), clear);
  if (!i32x4.all_true(v128.or(clear, plain))) {
    mixedFour(planes, smalls, at, along, light, inSky, clear, plain);
    return;
  }
  storeOf(planes, 3, at, v128.andnot(ONE, clear));
  for (let c: usize = 0; c < 3; c++)
    storeOf(planes, c, at, v128.bitselect(toldAt(smalls, TOLD_LAND + c, along), seenOf(planes, c, at), clear));
}

/** Four pixels of which some are neither clear sky nor plain land. */
function mixedFour(
  planes: usize,
  smalls: usize,
  at: usize,
  along: usize,
  light: v128,
  inSky: v128,
  clear: v128,
  plain: v128,
): void {
  const within = toldAt(smalls, TOLD_WITHIN_LAND, along);
  const inLand = f32x4.gt(within, SURELY);
  const sure = v128.or(inSky, inLand);
  let found = ZERO;
  // Only where a place is neither surely sky nor surely land it counts what the survey found.
  if (!i32x4.all_true(sure)) {
    const line = coverageAt(toldAt(smalls, TOLD_SLOPE, along), toldAt(smalls, TOLD_OFFSET, along), rootOf(light));
    found = v128.andnot(f32x4.sub(ONE, line), sure);
  }
  const r = seenOf(planes, 0, at);
  const mixed = landShare(smalls, along, r, seenOf(planes, 1, at), seenOf(planes, 2, at), light, found);
  const share = v128.andnot(v128.bitselect(ONE, mixed, plain), clear);
  const read = smoothStep(LAND_READ_FROM, LAND_READ_TO, share);
  // Beside a brighter, uneven sky what is far brighter than the land around has the sky in it.
  const unsure = f32x4.mul(f32x4.sub(ONE, within), f32x4.sub(ONE, evennessAt(smalls, along)));
  const contrast = f32x4.div(lightOf(smalls, TOLD_LAND, along), f32x4.pmax(LEAST, lightOf(smalls, TOLD_SKY, along)));
  const hold = f32x4.mul(unsure, f32x4.sub(ONE, smoothStep(LAND_HELD_FROM, LAND_HELD_TO, contrast)));
  // What is all land, surely within it, is its own colour.
  const own = v128.or(plain, v128.and(f32x4.eq(share, ONE), inLand));
  const held = v128.andnot(hold, own);
  storeOf(planes, 3, at, share);
  for (let c: usize = 0; c < 3; c++) {
    const land = toldAt(smalls, TOLD_LAND + c, along);
    const color = ownColor(seenOf(planes, c, at), toldAt(smalls, TOLD_SKY + c, along), land, share, read, held);
    storeOf(planes, c, at, v128.bitselect(land, color, clear));
  }
}

/**
 * A box of `rows` rows of `width` pixels, at least 4, in planes whose rows are `stride` pixels apart. `planes`: offsets of the box's first pixel
 * in out r, g, b, land, and plate r, g, b. `smalls`: what is told (see `toldPlanes` of src/core/sky/free-land.ts). `lines`: room for two
 * lines of each small picture.
 */
export function freeLand(planes: usize, smalls: usize, lines: usize, stride: i32, width: i32, rows: i32): void {
  for (let part = 0; part < width; part += PART) {
    // The last four of a row, or of a part, reach back over pixels that are done: they come to the same.
    const first = min<i32>(part, width - 4);
    const count = min<i32>(PART, width - first);
    begin(smalls, TOLD_COUNT, lines);
    for (let y = 0; y < rows; y++) {
      readyAll(smalls, TOLD_COUNT, y, first, count);
      const row = <usize>(y * stride + first) << 2;
      for (let x = 0; x < count; x += 4) {
        const along = <usize>min<i32>(x, count - 4) << 2;
        fourOf(planes, smalls, row + along, along);
      }
    }
  }
}
