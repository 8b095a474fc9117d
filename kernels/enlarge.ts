/*
 * A small picture looked at between its pixels, over a region at another scale. Rows of the small one are drawn out to the region's width
 * once, a part of them at a time; between two of them a row of the region is a line.
 */

const LANES = f32x4(0, 1, 2, 3);
const ZERO = f32x4.splat(0);

/** Columns that are done at a time. */
export const PART: i32 = 2048;

/** Where a region lies on a small picture: its first pixel, and the way from one to the next. Floats of `place`. */
const START_X: usize = 0;
const STEP_X: usize = 4;
const START_Y: usize = 8;
const STEP_Y: usize = 12;

/** Room that two lines take. */
export const LINE: usize = PART * 4 + 16;

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
export function drawOut(line: usize, row: usize, wide: i32, place: usize, first: i32, count: i32): void {
  const start = f32x4.splat(load<f32>(place + START_X));
  const step = f32x4.splat(load<f32>(place + STEP_X));
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
export function lineAt(upper: usize, lower: usize, at: usize, down: v128): v128 {
  const above = v128.load(upper + at);
  return f32x4.add(above, f32x4.mul(down, f32x4.sub(v128.load(lower + at), above)));
}

/**
 * Rows of a region of `width` by `rows` from a small picture of `wide` by `high`. With a `share` of 0 or more `out` is `own` but for that share of it,
 * and of the small picture as much (`spreadLight` of src/core/lens/veil.ts). With -1 `own` times the small picture is added to `out`.
 * `place`: where the region lies on it; `lines`: room for two lines.
 */
export function enlargeRows(
  out: usize,
  own: usize,
  small: usize,
  wide: i32,
  high: i32,
  place: usize,
  share: f32,
  width: i32,
  rows: i32,
  lines: usize,
): void {
  const shares = f32x4.splat(share);
  const adds = share < 0;
  for (let first = 0; first < width; first += PART) {
    const count = min<i32>(PART, width - first);
    const fours = count & ~3;
    let upper = lines;
    let lower = lines + LINE;
    let held = -2;
    for (let y = 0; y < rows; y++) {
      const v = load<f32>(place + START_Y) + <f32>y * load<f32>(place + STEP_Y);
      const row = min<i32>(high - 1, max<i32>(0, <i32>floor<f32>(v)));
      if (row == held + 1) {
        const other = upper;
        upper = lower;
        lower = other;
      } else if (row != held) {
        drawOut(upper, small + (<usize>(row * wide) << 2), wide, place, first, count);
      }
      if (row != held) {
        drawOut(lower, small + (<usize>(min<i32>(high - 1, row + 1) * wide) << 2), wide, place, first, count);
        held = row;
      }
      const down = f32x4.splat(min<f32>(1, max<f32>(0, v - <f32>row)));
      const begin = <usize>(y * width + first) << 2;
      for (let x = 0; x < fours; x += 4) {
        const at = begin + (<usize>x << 2);
        const glow = lineAt(upper, lower, <usize>x << 2, down);
        const there = v128.load(own + at);
        v128.store(
          out + at,
          adds
            ? f32x4.add(v128.load(out + at), f32x4.mul(there, glow))
            : f32x4.add(there, f32x4.mul(shares, f32x4.sub(glow, there))),
        );
      }
      for (let x = fours; x < count; x++) {
        const at = begin + (<usize>x << 2);
        const glow = f32x4.extract_lane(lineAt(upper, lower, <usize>x << 2, down), 0);
        const there = load<f32>(own + at);
        store<f32>(out + at, adds ? load<f32>(out + at) + there * glow : there + share * (glow - there));
      }
    }
  }
}
