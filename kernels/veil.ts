/* Light but for the share that a lens spreads, four pixels at a time. The same as `spreadLight` of src/core/lens/veil.ts, 32-bit. */

const LANES = f32x4(0, 1, 2, 3);
const ZERO = f32x4.splat(0);

/** Writes a line between two rows of the veil, and its last value once more. */
function lineBetween(line: usize, upper: usize, lower: usize, down: f32, width: i32): void {
  let last: f32 = 0;
  for (let x = 0; x < width; x++) {
    const at = <usize>x << 2;
    const above = load<f32>(upper + at);
    last = above + down * (load<f32>(lower + at) - above);
    store<f32>(line + at, last);
  }
  store<f32>(line + (<usize>width << 2), last);
}

/**
 * One channel of some rows. `width` is at least 4. `veil` has `wide` by `high` values of the whole picture; `startX`, `stepX`, `startY`
 * and `stepY`: where on it the first pixel lies, and how far it is from one to the next. `line`: room for a row of it and one more.
 */
export function spreadRows(
  out: usize,
  light: usize,
  veil: usize,
  wide: i32,
  high: i32,
  startX: f32,
  stepX: f32,
  startY: f32,
  stepY: f32,
  share: f32,
  width: i32,
  rows: i32,
  line: usize,
): void {
  const most = i32x4.splat(wide - 1);
  const spread = f32x4.splat(share);
  for (let y = 0; y < rows; y++) {
    const v = startY + <f32>y * stepY;
    const y0 = min<i32>(high - 1, max<i32>(0, <i32>floor<f32>(v)));
    const y1 = min<i32>(high - 1, y0 + 1);
    const down = min<f32>(1, max<f32>(0, v - <f32>y0));
    lineBetween(line, veil + (<usize>(y0 * wide) << 2), veil + (<usize>(y1 * wide) << 2), down, wide);
    const row = <usize>(y * width) << 2;
    for (let x = 0; x < width; x += 4) {
      // The last group reaches back over pixels that are done: they come out the same.
      const start = min<i32>(x, width - 4);
      const along = f32x4.add(f32x4.splat(<f32>start), LANES);
      const u = f32x4.pmax(ZERO, f32x4.add(f32x4.splat(startX), f32x4.mul(along, f32x4.splat(stepX))));
      const column = i32x4.min_s(i32x4.trunc_sat_f32x4_s(u), most);
      const part = f32x4.sub(u, f32x4.convert_i32x4_s(column));
      const a = line + (<usize>i32x4.extract_lane(column, 0) << 2);
      const b = line + (<usize>i32x4.extract_lane(column, 1) << 2);
      const c = line + (<usize>i32x4.extract_lane(column, 2) << 2);
      const d = line + (<usize>i32x4.extract_lane(column, 3) << 2);
      const left = f32x4(load<f32>(a), load<f32>(b), load<f32>(c), load<f32>(d));
      const right = f32x4(load<f32>(a, 4), load<f32>(b, 4), load<f32>(c, 4), load<f32>(d, 4));
      const glow = f32x4.add(left, f32x4.mul(part, f32x4.sub(right, left)));
      const at = row + (<usize>start << 2);
      const own = v128.load(light + at);
      v128.store(out + at, f32x4.add(own, f32x4.mul(spread, f32x4.sub(glow, own))));
    }
  }
}
