/*
 * How much of a small source four places see past walls, decks and standees. The same as src/core/light/occlusion.ts. All
 * places are from the eye, metres.
 *
 * Layout of what casts shadows, floats unless said otherwise: counts of walls, decks and standees (u32 each), one unused;
 * sight: depth (3), u (3), v (3), u0, v0, aspect; then walls of 12: ax, ay, ex, ey, length, top, side of the light, where the coverage begins at
 * which it ends, bytes from the block's begin (u32; 0 for none), least and most of the side of what a tile shows, two unused; then decks:
 * height, count of corners (u32), rise to the right and ahead, and a corner each of 8: ax, ay, ex, ey, 1 / length^2, slope, by, unused;
 * then standees of 12: ahead, left, right, top, bottom, width, height (u32 both), levels (u32, where they begin), unused;
 * then coverages at which walls end, laid out like standees.
 */

import { clamped, ONE, ZERO } from './film';
import { LAST_SOFT_LEVEL, OCCLUDER_SIGHT, ON_WALL, SHADOW_ENDS, SHARPEST_EDGE, TILE_LIST } from './generated';
import { binaryLogarithm } from './logarithm';

const SHARPEST = f32x4.splat(SHARPEST_EDGE);

@inline
function at(from: usize, index: usize): v128 {
  return v128.load32_splat(from + (index << 2));
}

/** Share of a source that an edge covers, by how far inside of it the middle of the ray passes. */
@inline
function covered(inside: v128, radius: v128): v128 {
  const soft = f32x4.pmax(SHARPEST, radius);
  const t = clamped(f32x4.div(f32x4.add(inside, soft), f32x4.add(soft, soft)));
  const curve = f32x4.sub(f32x4.splat(3), f32x4.add(t, t));
  return f32x4.mul(f32x4.mul(t, t), curve);
}

@inline
function between(t: v128, ends: v128): v128 {
  return v128.and(f32x4.gt(t, ends), f32x4.lt(t, f32x4.sub(ONE, ends)));
}

/** Bilinear look into one plane of a coverage. */
@inline
function look(plane: usize, width: u32, right: usize, below: usize, fx: f32, fy: f32): f32 {
  const top = load<f32>(plane) + fx * (load<f32>(plane + right) - load<f32>(plane));
  const under = plane + below;
  const bottom = load<f32>(under) + fx * (load<f32>(under + right) - load<f32>(under));
  return top + fy * (bottom - top);
}

/** The level at which a coverage of some width is looked at over discs of a radius, as fractions of the plate's width. */
@inline
function levelOf(soft: v128, width: u32): v128 {
  const half = f32x4.mul(soft, f32x4.splat(<f32>width));
  const coarse = f32x4.add(binaryLogarithm(f32x4.pmax(ONE, half)), ONE);
  const level = v128.bitselect(coarse, half, f32x4.ge(half, ONE));
  return f32x4.pmin(f32x4.splat(LAST_SOFT_LEVEL), f32x4.pmax(ZERO, level));
}

/** Coverage of a standee at a place of the plate, between its pixels and levels. */
function coverageAt(standee: usize, u: f32, v: f32, level: f32): f32 {
  const width = load<u32>(standee + 20);
  const height = load<u32>(standee + 24);
  const x = min<f32>(<f32>width - 1, max<f32>(0, u * <f32>width - 0.5));
  const y = min<f32>(<f32>height - 1, max<f32>(0, v * <f32>height - 0.5));
  const x0 = <u32>x;
  const y0 = <u32>y;
  const right: usize = x0 + 1 < width ? 4 : 0;
  const below: usize = y0 + 1 < height ? <usize>width << 2 : 0;
  const lower = <u32>level;
  const size = <usize>(width * height) << 2;
  const plane = <usize>load<u32>(standee + 28) + <usize>lower * size + (<usize>(y0 * width + x0) << 2);
  const first = look(plane, width, right, below, x - <f32>x0, y - <f32>y0);
  if (level <= <f32>lower) return first;
  const next = look(plane + size, width, right, below, x - <f32>x0, y - <f32>y0);
  return first + (level - <f32>lower) * (next - first);
}

/**
 * The coverage where world places are seen from the eye, over discs of some radii, in the lanes of `hit`; 0 in the others.
 */
function seenCoverage(
  occluders: usize,
  from: usize,
  hit: v128,
  x: v128,
  y: v128,
  z: v128,
  radius: v128,
): v128 {
  const sight = occluders + OCCLUDER_SIGHT;
  const depth = seenAlong(sight, 0, x, y, z);
  const u = f32x4.sub(f32x4.div(seenAlong(sight, 3, x, y, z), depth), at(sight, 9));
  const v = f32x4.sub(f32x4.div(seenAlong(sight, 6, x, y, z), depth), at(sight, 10));
  const soft = f32x4.div(radius, depth);
  const tall = f32x4.mul(soft, at(sight, 11));
  const within = v128.and(
    v128.and(f32x4.ge(u, f32x4.sub(at(from, 1), soft)), f32x4.le(u, f32x4.add(at(from, 2), soft))),
    v128.and(f32x4.ge(v, f32x4.sub(at(from, 3), tall)), f32x4.le(v, f32x4.add(at(from, 4), tall))),
  );
  const look = v128.and(v128.and(hit, within), f32x4.gt(depth, f32x4.splat(1e-9)));
  const lanes = i32x4.bitmask(look);
  let cover = ZERO;
  if (lanes == 0) return cover;
  const level = levelOf(soft, load<u32>(from + 20));
  if (lanes & 1)
    cover = f32x4.replace_lane(
      cover,
      0,
      coverageAt(from, f32x4.extract_lane(u, 0), f32x4.extract_lane(v, 0), f32x4.extract_lane(level, 0)),
    );
  if (lanes & 2)
    cover = f32x4.replace_lane(
      cover,
      1,
      coverageAt(from, f32x4.extract_lane(u, 1), f32x4.extract_lane(v, 1), f32x4.extract_lane(level, 1)),
    );
  if (lanes & 4)
    cover = f32x4.replace_lane(
      cover,
      2,
      coverageAt(from, f32x4.extract_lane(u, 2), f32x4.extract_lane(v, 2), f32x4.extract_lane(level, 2)),
    );
  if (lanes & 8)
    cover = f32x4.replace_lane(
      cover,
      3,
      coverageAt(from, f32x4.extract_lane(u, 3), f32x4.extract_lane(v, 3), f32x4.extract_lane(level, 3)),
    );
  return cover;
}

@inline
function seenAlong(sight: usize, first: usize, x: v128, y: v128, z: v128): v128 {
  return f32x4.add(
    f32x4.add(f32x4.mul(x, at(sight, first)), f32x4.mul(y, at(sight, first + 1))),
    f32x4.mul(z, at(sight, first + 2)),
  );
}

/** `near`: what `gatherNear` found. `lx`, `ly`, `lz`: the way from the places to the source. */
export function seenPast(
  occluders: usize,
  near: usize,
  px: v128,
  py: v128,
  pz: v128,
  lx: v128,
  ly: v128,
  lz: v128,
  radius: f32,
): v128 {
  const d2 = f32x4.add(f32x4.add(f32x4.mul(lx, lx), f32x4.mul(ly, ly)), f32x4.mul(lz, lz));
  const least = f32x4.splat(SHADOW_ENDS);
  const ends = f32x4.div(least, f32x4.pmax(least, f32x4.sqrt(d2)));
  const size = f32x4.splat(radius);
  let seen = ONE;
  let listed = near + TILE_LIST;

  for (let k = load<u32>(near); k > 0; k--, listed += 4) {
    const from = <usize>load<u32>(listed);
    const ax = at(from, 0);
    const ay = at(from, 1);
    const ex = at(from, 2);
    const ey = at(from, 3);
    const other = at(from, 6);
    const side = f32x4.sub(f32x4.mul(f32x4.sub(px, ax), ey), f32x4.mul(f32x4.sub(py, ay), ex));
    const crossing = v128.and(
      f32x4.lt(f32x4.mul(side, other), ZERO),
      f32x4.gt(f32x4.abs(side), f32x4.splat(ON_WALL)),
    );
    if (!v128.any_true(crossing)) continue;
    const t = f32x4.div(side, f32x4.sub(side, other));
    const hitX = f32x4.add(px, f32x4.mul(t, lx));
    const hitY = f32x4.add(py, f32x4.mul(t, ly));
    const hitZ = f32x4.add(pz, f32x4.mul(t, lz));
    const along = f32x4.add(f32x4.mul(f32x4.sub(hitX, ax), ex), f32x4.mul(f32x4.sub(hitY, ay), ey));
    const under = f32x4.sub(at(from, 5), hitZ);
    const inside = f32x4.pmin(f32x4.pmin(along, f32x4.sub(at(from, 4), along)), under);
    const radii = f32x4.mul(size, t);
    const soft = f32x4.pmax(SHARPEST, radii);
    const hit = v128.and(v128.and(crossing, f32x4.gt(f32x4.add(inside, soft), ZERO)), f32x4.lt(t, f32x4.sub(ONE, ends)));
    if (!v128.any_true(hit)) continue;
    let cover = v128.and(covered(inside, radii), hit);
    const end = load<u32>(from + 28);
    if (end != 0)
      cover = f32x4.mul(cover, seenCoverage(occluders, occluders + end, hit, hitX, hitY, hitZ, radii));
    seen = f32x4.mul(seen, f32x4.sub(ONE, cover));
    if (!v128.any_true(f32x4.gt(seen, ZERO))) return seen;
  }

  for (let k = load<u32>(near + 4); k > 0; k--, listed += 4) {
    const from = <usize>load<u32>(listed);
    const height = at(from, 0);
    const first = from + 16;
    const last = first + (<usize>load<u32>(from + 4) << 5);
    // Heights against the deck's slope.
    const riseX = at(from, 2);
    const riseY = at(from, 3);
    const over = f32x4.sub(pz, f32x4.add(f32x4.mul(riseX, px), f32x4.mul(riseY, py)));
    const climb = f32x4.sub(lz, f32x4.add(f32x4.mul(riseX, lx), f32x4.mul(riseY, ly)));
    const crossing = v128.xor(
      f32x4.gt(over, height),
      f32x4.gt(f32x4.add(over, climb), height),
    );
    if (!v128.any_true(crossing)) continue;
    const t = f32x4.div(f32x4.sub(height, over), climb);
    const x = f32x4.add(px, f32x4.mul(t, lx));
    const y = f32x4.add(py, f32x4.mul(t, ly));
    let nearest = f32x4.splat(1e30);
    let inside = i32x4.splat(0);
    for (let c = first; c < last; c += 32) {
      const ax = at(c, 0);
      const ay = at(c, 1);
      const ex = at(c, 2);
      const ey = at(c, 3);
      const wx = f32x4.sub(x, ax);
      const wy = f32x4.sub(y, ay);
      const along = clamped(f32x4.mul(f32x4.add(f32x4.mul(wx, ex), f32x4.mul(wy, ey)), at(c, 4)));
      const dx = f32x4.sub(wx, f32x4.mul(along, ex));
      const dy = f32x4.sub(wy, f32x4.mul(along, ey));
      nearest = f32x4.pmin(nearest, f32x4.add(f32x4.mul(dx, dx), f32x4.mul(dy, dy)));
      const across = v128.xor(f32x4.le(ay, y), f32x4.le(at(c, 6), y));
      const before = f32x4.lt(wx, f32x4.mul(wy, at(c, 5)));
      inside = v128.xor(inside, v128.and(across, before));
    }
    const away = f32x4.sqrt(nearest);
    const cover = covered(v128.bitselect(away, f32x4.neg(away), inside), f32x4.mul(size, t));
    const held = v128.and(cover, v128.and(crossing, between(t, ends)));
    seen = f32x4.mul(seen, f32x4.sub(ONE, held));
  }

  for (let k = load<u32>(near + 8); k > 0; k--, listed += 4) {
    const from = <usize>load<u32>(listed);
    const ahead = at(from, 0);
    const t = f32x4.div(f32x4.sub(ahead, py), ly);
    const crossing = v128.xor(f32x4.gt(py, ahead), f32x4.gt(f32x4.add(py, ly), ahead));
    const hit = v128.and(crossing, between(t, ends));
    if (!v128.any_true(hit)) continue;
    const sx = f32x4.add(px, f32x4.mul(t, lx));
    const sz = f32x4.add(pz, f32x4.mul(t, lz));
    const sight = occluders + OCCLUDER_SIGHT;
    const cover = seenCoverage(occluders, from, hit, sx, ahead, sz, f32x4.mul(size, t));
    seen = f32x4.mul(seen, f32x4.sub(ONE, cover));
  }
  return seen;
}
