/*
 * A tile of a region: what is the same for all lights is found once. Scratch of a tile, floats: the box around its land, from the eye
 * (least and most x, y and z; two unused), then a plane of one over each ray's length, one of the cosine at which the ray
 * meets its surface, and two of x and y of its land, elsewhere NaN.
 */

import { GRAZING_COSINE, LIT_LAND, LIT_NORMAL_X, LIT_NORMAL_Y, LIT_NORMAL_Z, LIT_REACH, OCCLUDER_HEAD_BYTES, OCCLUDER_WALL_BYTES, OCCLUDER_WALL_SIDE_LEAST, OCCLUDER_WALL_SIDE_MOST, TILE_HEIGHT, TILE_RAYS, TILE_WIDTH } from './generated';


const LANES = f32x4(0, 1, 2, 3);
const ZERO = f32x4.splat(0);
const ONE = f32x4.splat(1);
const GRAZING = f32x4.splat(GRAZING_COSINE);
const FAR = f32x4.splat(1e30);

const PLANE: usize = TILE_WIDTH * TILE_HEIGHT * 4;
export const SEEN: usize = TILE_RAYS + PLANE;
const PLACE_X: usize = SEEN + PLANE;
const PLACE_Y: usize = PLACE_X + PLANE;
export const TILE_BYTES: usize = PLACE_Y + PLANE;
const NONE = f32x4.splat(NaN);

@inline
function leastOf(value: v128): f32 {
  const far = i8x16.shuffle(value, value, 8, 9, 10, 11, 12, 13, 14, 15, 0, 1, 2, 3, 4, 5, 6, 7);
  const pairs = f32x4.pmin(value, far);
  return min<f32>(f32x4.extract_lane(pairs, 0), f32x4.extract_lane(pairs, 1));
}

@inline
function mostOf(value: v128): f32 {
  return -leastOf(f32x4.neg(value));
}

/** Where in a plane of a tile's scratch its pixels are. */
@inline
export function inTile(x: i32, y: i32): usize {
  return <usize>(y * TILE_WIDTH + x) << 2;
}

/**
 * Readies a tile. `lit`: where the region's planes begin; `rays`: the ray at the region's first pixel, and its steps to the right and down. The region is at least 4
 * pixels wide. Returns whether there is land.
 */
export function readyTile(
  tile: usize,
  lit: usize,
  rays: usize,
  width: i32,
  left: i32,
  right: i32,
  top: i32,
  bottom: i32,
): bool {
  const reachPlane: usize = load<u32>(lit + LIT_REACH);
  const normalX: usize = load<u32>(lit + LIT_NORMAL_X);
  const normalY: usize = load<u32>(lit + LIT_NORMAL_Y);
  const normalZ: usize = load<u32>(lit + LIT_NORMAL_Z);
  const land: usize = load<u32>(lit + LIT_LAND);
  let x0 = FAR;
  let y0 = FAR;
  let z0 = FAR;
  let x1 = f32x4.neg(FAR);
  let y1 = x1;
  let z1 = x1;
  let found = ZERO;
  for (let y = top; y < bottom; y++) {
    const row = f32x4.splat(<f32>y);
    const rowX = f32x4.add(v128.load32_splat(rays), f32x4.mul(row, v128.load32_splat(rays + 24)));
    const rowY = f32x4.add(v128.load32_splat(rays + 4), f32x4.mul(row, v128.load32_splat(rays + 28)));
    const rowZ = f32x4.add(v128.load32_splat(rays + 8), f32x4.mul(row, v128.load32_splat(rays + 32)));
    for (let x = left; x < right; x += 4) {
      const start = min<i32>(x, width - 4);
      const at = <usize>(y * width + start) << 2;
      const along = f32x4.add(f32x4.splat(<f32>start), LANES);
      const rx = f32x4.add(rowX, f32x4.mul(along, v128.load32_splat(rays + 12)));
      const ry = f32x4.add(rowY, f32x4.mul(along, v128.load32_splat(rays + 16)));
      const rz = f32x4.add(rowZ, f32x4.mul(along, v128.load32_splat(rays + 20)));
      const length = f32x4.add(f32x4.add(f32x4.mul(rx, rx), f32x4.mul(ry, ry)), f32x4.mul(rz, rz));
      const perRay = f32x4.div(ONE, f32x4.sqrt(length));
      const facing = f32x4.add(
        f32x4.add(f32x4.mul(rx, v128.load(normalX + at)), f32x4.mul(ry, v128.load(normalY + at))),
        f32x4.mul(rz, v128.load(normalZ + at)),
      );
      const own = tile + inTile(x - left, y - top);
      v128.store(own + TILE_RAYS, perRay);
      v128.store(own + SEEN, f32x4.pmax(GRAZING, f32x4.neg(f32x4.mul(facing, perRay))));
      const lit = f32x4.gt(v128.load(land + at), ZERO);
      found = v128.or(found, lit);
      const reach = v128.load(reachPlane + at);
      const px = f32x4.mul(rx, reach);
      const py = f32x4.mul(ry, reach);
      const pz = f32x4.mul(rz, reach);
      v128.store(own + PLACE_X, v128.bitselect(px, NONE, lit));
      v128.store(own + PLACE_Y, v128.bitselect(py, NONE, lit));
      x0 = v128.bitselect(f32x4.pmin(x0, px), x0, lit);
      x1 = v128.bitselect(f32x4.pmax(x1, px), x1, lit);
      y0 = v128.bitselect(f32x4.pmin(y0, py), y0, lit);
      y1 = v128.bitselect(f32x4.pmax(y1, py), y1, lit);
      z0 = v128.bitselect(f32x4.pmin(z0, pz), z0, lit);
      z1 = v128.bitselect(f32x4.pmax(z1, pz), z1, lit);
    }
  }
  store<f32>(tile, leastOf(x0));
  store<f32>(tile + 4, mostOf(x1));
  store<f32>(tile + 8, leastOf(y0));
  store<f32>(tile + 12, mostOf(y1));
  store<f32>(tile + 16, leastOf(z0));
  store<f32>(tile + 20, mostOf(z1));
  return v128.any_true(found);
}

/** Least and most that a tile's land lies to the side of each wall, metres, into the walls' own records. */
export function sidesOfTile(
  occluders: usize,
  tile: usize,
  left: i32,
  right: i32,
  top: i32,
  bottom: i32,
): void {
  const middleX = (load<f32>(tile) + load<f32>(tile + 4)) * 0.5;
  const middleY = (load<f32>(tile + 8) + load<f32>(tile + 12)) * 0.5;
  const halfX = load<f32>(tile + 4) - middleX;
  const halfY = load<f32>(tile + 12) - middleY;
  let wall = occluders + OCCLUDER_HEAD_BYTES;
  for (let k = load<u32>(occluders); k > 0; k--, wall += OCCLUDER_WALL_BYTES) {
    const ax = load<f32>(wall);
    const ay = load<f32>(wall + 4);
    const ex = load<f32>(wall + 8);
    const ey = load<f32>(wall + 12);
    const middle = (middleX - ax) * ey - (middleY - ay) * ex;
    const half = abs<f32>(ey) * halfX + abs<f32>(ex) * halfY;
    let least = middle - half;
    let most = middle + half;
    // A box around what lies aslant says too little.
    if (least < 0 && most > 0) {
      let low = FAR;
      let high = f32x4.neg(FAR);
      for (let y = top; y < bottom; y++) {
        for (let x = left; x < right; x += 4) {
          const own = tile + inTile(x - left, y - top);
          const side = f32x4.sub(
            f32x4.mul(f32x4.sub(v128.load(own + PLACE_X), f32x4.splat(ax)), f32x4.splat(ey)),
            f32x4.mul(f32x4.sub(v128.load(own + PLACE_Y), f32x4.splat(ay)), f32x4.splat(ex)),
          );
          low = f32x4.pmin(low, side);
          high = f32x4.pmax(high, side);
        }
      }
      least = leastOf(low);
      most = mostOf(high);
    }
    store<f32>(wall + OCCLUDER_WALL_SIDE_LEAST, least);
    store<f32>(wall + OCCLUDER_WALL_SIDE_MOST, most);
  }
}
