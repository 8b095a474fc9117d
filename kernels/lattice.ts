/*
 * Where the relief of a tile is smooth its light is too: it is found at every third pixel of every third row, and between them it
 * lies on lines (irradiance is interpolated as Ward, Rubinstein and Clear 1988 do, on a grid of the picture). The last pixels of a
 * tile, 63 and 15, are multiples of three: lattices of neighbours need nothing of each other.
 *
 * Scratch of a lattice: squared distance of neighbours at most (f32), three unused, a record of planes, rays, then the planes
 * themselves, then a tile of its own.
 */

import {
  LIGHT_CLEAR, LIGHT_CUTOFF, LIGHT_FACES, LIGHT_FOCUS, LIGHT_SEEN_X, LIGHT_SEEN_Y, LIGHT_TURNED,
  LIT_AIR, LIT_BYTES, LIT_LAND, LIT_NORMAL_X, LIT_NORMAL_Y, LIT_NORMAL_Z, LIT_REACH, LIT_SHEEN, LIT_SHINE, LIT_SPILL, LIT_UNKNOWN_FACING,
  NO_CUTOFF_SINE, TILE_FACES_LEAST, TILE_FACES_MOST, TILE_HEIGHT, TILE_WIDTH,
} from './generated';
import { alongTile, TILE_BYTES } from './tile';

const EVERY: i32 = 3;
const COLUMNS: i32 = 22;
export const LATTICE_ROWS: i32 = 6;
/** Columns with some beside them, to make fours of them: they hold what the last one does. */
export const LATTICE_WIDTH: i32 = 24;
const PLANE: usize = LATTICE_WIDTH * LATTICE_ROWS * 4;
const THIRD: f32 = 1 / 3;

export const LATTICE_LIT: usize = 16;
export const LATTICE_RAYS: usize = LATTICE_LIT + LIT_BYTES;
const SPILL: usize = LATTICE_RAYS + 48;
const AIR: usize = SPILL + PLANE;
export const LATTICE_REACH: usize = AIR + PLANE;
const NEARNESS: usize = LATTICE_REACH + PLANE;
const NORMAL: usize = NEARNESS + PLANE;
const UNKNOWN_FACING: usize = NORMAL + 3 * PLANE;
export const LATTICE_LAND: usize = UNKNOWN_FACING + PLANE;
export const LATTICE_TILE: usize = LATTICE_LAND + PLANE;
export const LATTICE_BYTES: usize = LATTICE_TILE + TILE_BYTES;

/** What is smooth in a tile. */
export const SMOOTH_REACH: i32 = 1;
export const SMOOTH_LAND: i32 = 2;

/** How far a pixel may lie beside what its lattice says: of one over its distance as a share, of normals and coverage as it is. */
const ASTRAY: f32 = 0.003;

/** Least distance of a light, in distances of neighbours on the land, and of its image, pixels, from which it is smooth. */
const FAR_SPACINGS: f32 = 20;
const FAR_PIXELS: f32 = 48;

/** Up to this cosine from its own plane a patch sends as good as nothing. */
const GRAZING_SENT: f32 = 0.01;

/** Copies every third pixel of a tile. */
function thin(to: usize, plane: usize, width: i32): void {
  for (let j = 0; j < LATTICE_ROWS; j++) {
    const row = plane + (<usize>(EVERY * j * width) << 2);
    for (let i = 0; i < LATTICE_WIDTH; i++, to += 4) {
      store<f32>(to, load<f32>(row + (<usize>(EVERY * min<i32>(i, COLUMNS - 1)) << 2)));
    }
  }
}

/** A lattice's value between its rows `j` and `j + 1`. */
@inline
function between(lattice: usize, j: i32, i: i32, down: f32): f32 {
  const at = lattice + (<usize>(j * LATTICE_WIDTH + i) << 2);
  const upper = load<f32>(at);
  return upper + down * (load<f32>(at + LATTICE_WIDTH * 4) - upper);
}

/** Whether a tile of a plane lies on its lattice; `inverse`: whether one over it does. */
function isSmooth(lattice: usize, plane: usize, width: i32, inverse: bool): bool {
  for (let y = 0; y < <i32>TILE_HEIGHT; y++) {
    const j = min<i32>(y / EVERY, LATTICE_ROWS - 2);
    const down = <f32>(y - EVERY * j) * THIRD;
    let at = plane + (<usize>(y * width) << 2);
    let left = between(lattice, j, 0, down);
    for (let i = 1; i < COLUMNS; i++, at += 12) {
      const right = between(lattice, j, i, down);
      const step = (right - left) * THIRD;
      const a = load<f32>(at);
      const b = load<f32>(at + 4);
      const c = load<f32>(at + 8);
      const off = inverse
        ? max<f32>(abs<f32>(left * a - 1), max<f32>(abs<f32>((left + step) * b - 1), abs<f32>((right - step) * c - 1)))
        : max<f32>(abs<f32>(left - a), max<f32>(abs<f32>(left + step - b), abs<f32>(right - step - c)));
      if (!(off <= ASTRAY)) return false;
      left = right;
    }
    const last = load<f32>(at);
    if (!((inverse ? abs<f32>(left * last - 1) : abs<f32>(left - last)) <= ASTRAY)) return false;
  }
  return true;
}

/** Whether a tile of a plane holds one value. */
function isEven(plane: usize, width: i32, value: f32): bool {
  const wanted = f32x4.splat(value);
  for (let y = 0; y < <i32>TILE_HEIGHT; y++) {
    const row = plane + (<usize>(y * width) << 2);
    let other = f32x4.ne(v128.load(row), wanted);
    for (let x: usize = 16; x < TILE_WIDTH << 2; x += 16) other = v128.or(other, f32x4.ne(v128.load(row + x), wanted));
    if (v128.any_true(other)) return false;
  }
  return true;
}

/** Thins a plane of the tile that begins at `first`, and notes where it lies. Returns whether it is smooth. */
function ready(lattice: usize, lit: usize, which: usize, to: usize, first: usize, width: i32): bool {
  const plane = load<u32>(lit + which) + first;
  thin(lattice + to, plane, width);
  store<u32>(lattice + LATTICE_LIT + which, <u32>(lattice + to));
  return isEven(plane, width, load<f32>(plane)) || isSmooth(lattice + to, plane, width, false);
}

/** Squared distance between neighbours of a lattice, at most. */
function spacing(lattice: usize): f32 {
  const rays = lattice + LATTICE_RAYS;
  let most: f32 = 0;
  for (let j = 0; j < LATTICE_ROWS; j++) {
    for (let i = 0; i < COLUMNS; i++) {
      const at = lattice + LATTICE_REACH + (<usize>(j * LATTICE_WIDTH + i) << 2);
      const reach = load<f32>(at);
      const right = i < COLUMNS - 1 ? load<f32>(at + 4) : reach;
      const below = j < LATTICE_ROWS - 1 ? load<f32>(at + LATTICE_WIDTH * 4) : reach;
      let across: f32 = 0;
      let down: f32 = 0;
      for (let c: usize = 0; c < 12; c += 4) {
        const stepX = load<f32>(rays + 12 + c);
        const stepY = load<f32>(rays + 24 + c);
        const ray = load<f32>(rays + c) + <f32>i * stepX + <f32>j * stepY;
        const x = ray * reach;
        const toRight = (ray + stepX) * right - x;
        const toBelow = (ray + stepY) * below - x;
        if (i < COLUMNS - 1) across += toRight * toRight;
        if (j < LATTICE_ROWS - 1) down += toBelow * toBelow;
      }
      most = max<f32>(most, max<f32>(across, down));
    }
  }
  return most;
}

/** Lays a lattice over a whole tile. `lit`: the region's planes; `rays` as `addPointLights` says. Returns what of it is smooth. */
export function readyLattice(lattice: usize, lit: usize, rays: usize, width: i32, left: i32, top: i32, isLand: bool): i32 {
  const first = <usize>(top * width + left) << 2;
  const own = lattice + LATTICE_LIT;
  const reach = load<u32>(lit + LIT_REACH) + first;
  thin(lattice + LATTICE_REACH, reach, width);
  for (let at: usize = 0; at < PLANE; at += 4) {
    store<f32>(lattice + NEARNESS + at, 1 / load<f32>(lattice + LATTICE_REACH + at));
  }
  if (!isSmooth(lattice + NEARNESS, reach, width, true)) return 0;
  memory.fill(own, 0, LIT_BYTES);
  memory.fill(lattice + SPILL, 0, 2 * PLANE);
  store<u32>(own + LIT_SPILL, <u32>(lattice + SPILL));
  store<u32>(own + LIT_AIR, <u32>(lattice + AIR));
  store<u32>(own + LIT_REACH, <u32>(lattice + LATTICE_REACH));
  for (let c: usize = 0; c < 12; c += 4) {
    const stepX = load<f32>(rays + 12 + c);
    const stepY = load<f32>(rays + 24 + c);
    const to = lattice + LATTICE_RAYS + c;
    store<f32>(to, load<f32>(rays + c) + <f32>left * stepX + <f32>top * stepY);
    store<f32>(to + 12, <f32>EVERY * stepX);
    store<f32>(to + 24, <f32>EVERY * stepY);
  }
  // All of them are thinned, whether land is smooth or not: the lattice's own tile is made of them.
  let smooth = ready(lattice, lit, LIT_LAND, LATTICE_LAND, first, width);
  smooth = ready(lattice, lit, LIT_UNKNOWN_FACING, UNKNOWN_FACING, first, width) && smooth;
  smooth = ready(lattice, lit, LIT_NORMAL_X, NORMAL, first, width) && smooth;
  smooth = ready(lattice, lit, LIT_NORMAL_Y, NORMAL + PLANE, first, width) && smooth;
  smooth = ready(lattice, lit, LIT_NORMAL_Z, NORMAL + 2 * PLANE, first, width) && smooth;
  if (!isLand || !smooth) return SMOOTH_REACH;
  if (load<u32>(lit + LIT_SHINE) != 0 && !isEven(load<u32>(lit + LIT_SHEEN) + first, width, 0)) return SMOOTH_REACH;
  store<f32>(lattice, spacing(lattice));
  return SMOOTH_REACH | SMOOTH_LAND;
}

/** Whether a light's spill on a tile is as smooth as its land: it is not near, is no beam, and does not graze the tile by its own plane. */
export function isGentle(light: usize, lattice: usize, tile: usize): bool {
  if (load<f32>(light + LIGHT_FOCUS) > 0 || load<f32>(light + LIGHT_CUTOFF) < NO_CUTOFF_SINE) return false;
  let away: f32 = 0;
  let hangs: f32 = 0;
  for (let c: usize = 0; c < 3; c++) {
    const place = load<f32>(light + 4 * c);
    const outside = max<f32>(0, max<f32>(place - load<f32>(tile + 8 * c + 4), load<f32>(tile + 8 * c) - place));
    away += outside * outside;
    hangs += place * load<f32>(light + LIGHT_FACES + 4 * c);
  }
  if (away < FAR_SPACINGS * FAR_SPACINGS * load<f32>(lattice)) return false;
  if (load<f32>(light + LIGHT_TURNED) == 0) return true;
  // Across its plane light has an edge, which does not show where all of it is grazing.
  alongTile(tile, light + LIGHT_FACES, 4, TILE_WIDTH, TILE_HEIGHT);
  const clear = load<f32>(light + LIGHT_CLEAR) + hangs;
  const least = clear - load<f32>(tile + TILE_FACES_MOST);
  const most = clear - load<f32>(tile + TILE_FACES_LEAST);
  return most < 0 || -least < GRAZING_SENT * sqrt<f32>(away);
}

/** Whether the image of a light lies well outside of a tile: what the air scatters of it is smooth there. */
export function isImageFar(light: usize, left: i32, right: i32, top: i32, bottom: i32): bool {
  const x = load<f32>(light + LIGHT_SEEN_X);
  const y = load<f32>(light + LIGHT_SEEN_Y);
  const aside = max<f32>(<f32>left - x, x - <f32>right);
  const above = max<f32>(<f32>top - y, y - <f32>bottom);
  return max<f32>(aside, above) > FAR_PIXELS;
}

/** Adds a plane of a lattice to its tile of a plane. */
function fillIn(plane: usize, lattice: usize, width: i32): void {
  for (let y = 0; y < <i32>TILE_HEIGHT; y++) {
    const j = min<i32>(y / EVERY, LATTICE_ROWS - 2);
    const down = <f32>(y - EVERY * j) * THIRD;
    let at = plane + (<usize>(y * width) << 2);
    let left = between(lattice, j, 0, down);
    for (let i = 1; i < COLUMNS; i++, at += 12) {
      const right = between(lattice, j, i, down);
      const step = (right - left) * THIRD;
      store<f32>(at, load<f32>(at) + left);
      store<f32>(at + 4, load<f32>(at + 4) + left + step);
      store<f32>(at + 8, load<f32>(at + 8) + right - step);
      left = right;
    }
    store<f32>(at, load<f32>(at) + left);
  }
}

/** Adds what lights gave a lattice to its tile. */
export function fillTile(lit: usize, lattice: usize, width: i32, left: i32, top: i32, spill: bool, air: bool): void {
  const first = <usize>(top * width + left) << 2;
  if (spill) fillIn(load<u32>(lit + LIT_SPILL) + first, lattice + SPILL, width);
  if (air) fillIn(load<u32>(lit + LIT_AIR) + first, lattice + AIR, width);
}
