/*
 * A tile of a region: what is the same for all lights is found once. Scratch of a tile, floats: the box around its land, from the eye
 * (least and most x, y and z), the most of it that faces nobody knows where, one unused; the box around its normals; where all face
 * one way, how far that way its land begins, one unused; a way, and how far that way its land begins and ends (see `alongTile`), three
 * unused; then a plane of one over each ray's length, one of the cosine at which the ray meets its surface, and three of x, y and z of
 * its land, elsewhere NaN.
 */

import { GRAZING_COSINE, LIT_LAND, LIT_NORMAL_X, LIT_NORMAL_Y, LIT_NORMAL_Z, LIT_REACH, LIT_UNKNOWN_FACING, OCCLUDER_HEAD_BYTES, OCCLUDER_WALL_BYTES, OCCLUDER_WALL_SIDE_LEAST, OCCLUDER_WALL_SIDE_MOST, TILE_FACES, TILE_FACES_LEAST, TILE_FACES_MOST, TILE_HEIGHT, TILE_NORMALS, TILE_PLANE, TILE_RAYS, TILE_UNKNOWN_FACING, TILE_WIDTH } from './generated';


const LANES = f32x4(0, 1, 2, 3);
const ZERO = f32x4.splat(0);
const ONE = f32x4.splat(1);
const GRAZING = f32x4.splat(GRAZING_COSINE);
const FAR = f32x4.splat(1e30);

const PLANE: usize = TILE_WIDTH * TILE_HEIGHT * 4;
export const SEEN: usize = TILE_RAYS + PLANE;
const PLACE_X: usize = SEEN + PLANE;
const PLACE_Y: usize = PLACE_X + PLANE;
const PLACE_Z: usize = PLACE_Y + PLANE;
export const TILE_BYTES: usize = PLACE_Z + PLANE;
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

/** Writes the least and the most of all lanes. */
@inline
function putBounds(at: usize, least: v128, most: v128): void {
  store<f32>(at, leastOf(least));
  store<f32>(at + 4, mostOf(most));
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
  const unknownFacing: usize = load<u32>(lit + LIT_UNKNOWN_FACING);
  let x0 = FAR;
  let y0 = FAR;
  let z0 = FAR;
  let x1 = f32x4.neg(FAR);
  let y1 = x1;
  let z1 = x1;
  let nx0 = FAR;
  let ny0 = FAR;
  let nz0 = FAR;
  let nx1 = x1;
  let ny1 = x1;
  let nz1 = x1;
  let unknown = ZERO;
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
      const nx = v128.load(normalX + at);
      const ny = v128.load(normalY + at);
      const nz = v128.load(normalZ + at);
      const facing = f32x4.add(f32x4.add(f32x4.mul(rx, nx), f32x4.mul(ry, ny)), f32x4.mul(rz, nz));
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
      v128.store(own + PLACE_Z, v128.bitselect(pz, NONE, lit));
      x0 = v128.bitselect(f32x4.pmin(x0, px), x0, lit);
      x1 = v128.bitselect(f32x4.pmax(x1, px), x1, lit);
      y0 = v128.bitselect(f32x4.pmin(y0, py), y0, lit);
      y1 = v128.bitselect(f32x4.pmax(y1, py), y1, lit);
      z0 = v128.bitselect(f32x4.pmin(z0, pz), z0, lit);
      z1 = v128.bitselect(f32x4.pmax(z1, pz), z1, lit);
      nx0 = v128.bitselect(f32x4.pmin(nx0, nx), nx0, lit);
      nx1 = v128.bitselect(f32x4.pmax(nx1, nx), nx1, lit);
      ny0 = v128.bitselect(f32x4.pmin(ny0, ny), ny0, lit);
      ny1 = v128.bitselect(f32x4.pmax(ny1, ny), ny1, lit);
      nz0 = v128.bitselect(f32x4.pmin(nz0, nz), nz0, lit);
      nz1 = v128.bitselect(f32x4.pmax(nz1, nz), nz1, lit);
      unknown = f32x4.pmax(unknown, v128.and(v128.load(unknownFacing + at), lit));
    }
  }
  putBounds(tile, x0, x1);
  putBounds(tile + 8, y0, y1);
  putBounds(tile + 16, z0, z1);
  store<f32>(tile + TILE_UNKNOWN_FACING, mostOf(unknown));
  putBounds(tile + TILE_NORMALS, nx0, nx1);
  putBounds(tile + TILE_NORMALS + 8, ny0, ny1);
  putBounds(tile + TILE_NORMALS + 16, nz0, nz1);
  store<f32>(tile + TILE_FACES, NaN);
  if (isOneWay(tile)) {
    alongTile(tile, tile + TILE_NORMALS, 8, right - left, bottom - top);
    store<f32>(tile + TILE_PLANE, load<f32>(tile + TILE_FACES_LEAST));
  }
  return v128.any_true(found);
}

/** Whether all land of a tile faces one way. */
@inline
export function isOneWay(tile: usize): bool {
  const normals = tile + TILE_NORMALS;
  return (
    load<f32>(normals) == load<f32>(normals + 4) &&
    load<f32>(normals + 8) == load<f32>(normals + 12) &&
    load<f32>(normals + 16) == load<f32>(normals + 20)
  );
}

/**
 * How far a way, of three floats `step` bytes apart, a tile's land begins and ends, metres from the eye. The last way's answer is kept:
 * many lights face the same one.
 */
export function alongTile(tile: usize, way: usize, step: usize, wide: i32, high: i32): void {
  const wx = load<f32>(way);
  const wy = load<f32>(way + step);
  const wz = load<f32>(way + 2 * step);
  const held = tile + TILE_FACES;
  if (load<f32>(held) == wx && load<f32>(held + 4) == wy && load<f32>(held + 8) == wz) return;
  store<f32>(held, wx);
  store<f32>(held + 4, wy);
  store<f32>(held + 8, wz);
  let least = FAR;
  let most = f32x4.neg(FAR);
  for (let y = 0; y < high; y++) {
    for (let x = 0; x < wide; x += 4) {
      const own = tile + inTile(x, y);
      const far = f32x4.add(
        f32x4.add(
          f32x4.mul(v128.load(own + PLACE_X), f32x4.splat(wx)),
          f32x4.mul(v128.load(own + PLACE_Y), f32x4.splat(wy)),
        ),
        f32x4.mul(v128.load(own + PLACE_Z), f32x4.splat(wz)),
      );
      least = f32x4.pmin(least, far);
      most = f32x4.pmax(most, far);
    }
  }
  store<f32>(tile + TILE_FACES_LEAST, leastOf(least));
  store<f32>(tile + TILE_FACES_MOST, mostOf(most));
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
