/*
 * Small pictures that are looked at between their pixels, over a region at another scale. Rows of a small one are drawn out to the region's
 * width once, a part of them at a time; between two of them a row of the region is a line. See SMALL in src/engine/kernels/layout.ts.
 */
import { splatAt, ZERO } from './film';
import {
  SMALL_BYTES, SMALL_DOWN, SMALL_HELD, SMALL_HIGH, SMALL_LINE, SMALL_LOWER, SMALL_PLACE, SMALL_UPPER, SMALL_WIDE,
} from './generated';

const LANES = f32x4(0, 1, 2, 3);

/** Four values of a row. */
@inline
function looked(row: usize, columns: v128): v128 {
  return f32x4(
    load<f32>(row + (<usize>i32x4.extract_lane(columns, 0) << 2)),
    load<f32>(row + (<usize>i32x4.extract_lane(columns, 1) << 2)),
    load<f32>(row + (<usize>i32x4.extract_lane(columns, 2) << 2)),
    load<f32>(row + (<usize>i32x4.extract_lane(columns, 3) << 2)),
  );
}

/** Draws a row of the small picture out over columns of the region, in fours. */
function drawOut(line: usize, row: usize, wide: i32, place: usize, first: i32, count: i32): void {
  const start = f32x4.splat(load<f32>(place));
  const step = f32x4.splat(load<f32>(place + 4));
  const most = i32x4.splat(wide - 1);
  for (let x = 0; x < count; x += 4, line += 16) {
    const along = f32x4.add(f32x4.splat(<f32>(first + x)), LANES);
    const u = f32x4.pmax(ZERO, f32x4.add(start, f32x4.mul(along, step)));
    const column = i32x4.min_s(i32x4.trunc_sat_f32x4_s(u), most);
    const part = f32x4.sub(u, f32x4.convert_i32x4_s(column));
    const next = i32x4.min_s(i32x4.add(column, i32x4.splat(1)), most);
    const left = looked(row, column);
    const right = looked(row, next);
    v128.store(line, f32x4.add(left, f32x4.mul(part, f32x4.sub(right, left))));
  }
}

@inline
function lineAt(upper: usize, lower: usize, at: usize, down: v128): v128 {
  const above = v128.load(upper + at);
  return f32x4.add(above, f32x4.mul(down, f32x4.sub(v128.load(lower + at), above)));
}

/** Gives each of some small pictures its lines, of which none is drawn yet. */
export function begin(smalls: usize, count: usize, lines: usize): void {
  for (let k: usize = 0; k < count; k++) {
    const small = smalls + k * SMALL_BYTES;
    store<u32>(small + SMALL_UPPER, <u32>(lines + 2 * k * SMALL_LINE));
    store<u32>(small + SMALL_LOWER, <u32>(lines + (2 * k + 1) * SMALL_LINE));
    store<i32>(small + SMALL_HELD, -2);
  }
}

/** Draws two lines of a small picture for a row of the region, where they are not drawn yet. */
export function ready(small: usize, y: i32, first: i32, count: i32): void {
  const place = small + SMALL_PLACE;
  const wide = load<i32>(small + SMALL_WIDE);
  const high = load<i32>(small + SMALL_HIGH);
  const data = load<u32>(small);
  const v = load<f32>(place + 8) + <f32>y * load<f32>(place + 12);
  const row = min<i32>(high - 1, max<i32>(0, <i32>floor<f32>(v)));
  const held = load<i32>(small + SMALL_HELD);
  if (row !== held) {
    if (row === held + 1) {
      const upper = load<u32>(small + SMALL_UPPER);
      store<u32>(small + SMALL_UPPER, load<u32>(small + SMALL_LOWER));
      store<u32>(small + SMALL_LOWER, upper);
    } else {
      drawOut(load<u32>(small + SMALL_UPPER), data + (<usize>(row * wide) << 2), wide, place, first, count);
    }
    const next = min<i32>(high - 1, row + 1);
    drawOut(load<u32>(small + SMALL_LOWER), data + (<usize>(next * wide) << 2), wide, place, first, count);
    store<i32>(small + SMALL_HELD, row);
  }
  store<f32>(small + SMALL_DOWN, min<f32>(1, max<f32>(0, v - <f32>row)));
}

/** The same of some small pictures, one behind the other. */
@inline
export function readyAll(smalls: usize, count: usize, y: i32, first: i32, pixels: i32): void {
  for (let k: usize = 0; k < count; k++) ready(smalls + k * SMALL_BYTES, y, first, pixels);
}

@inline
export function seenAt(small: usize, at: usize): v128 {
  return lineAt(load<u32>(small + SMALL_UPPER), load<u32>(small + SMALL_LOWER), at, splatAt(small, SMALL_DOWN));
}
