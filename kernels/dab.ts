/* A dab of a stroke, four pixels at a time. The same as `layDabs` of src/core/matte/paint-coverage.ts, 32-bit. */

const LANES = f32x4(0, 1, 2, 3);
const ZERO = f32x4.splat(0);
const ONE = f32x4.splat(1);
const TWO = f32x4.splat(2);
const THREE = f32x4.splat(3);

/**
 * Lays one dab on the pixels from `x0` to `x1` and `y0` to `y1`, both included, of rows of `width`. Each takes `share` of what is still
 * to come to `full`, less from `inner` of the radius `reach` outward.
 */
export function layDab(
  out: usize,
  width: i32,
  x0: i32,
  x1: i32,
  y0: i32,
  y1: i32,
  middleX: f32,
  middleY: f32,
  reach: f32,
  inner: f32,
  share: f32,
  full: f32,
): void {
  const perReach = f32x4.splat(1 / reach);
  const perFall = f32x4.splat(1 / (1 - inner));
  const flat = f32x4.splat(inner);
  const taken = f32x4.splat(share);
  const goal = f32x4.splat(full);
  for (let y = y0; y <= y1; y++) {
    const down = <f32>y - middleY;
    const across = sqrt<f32>(max<f32>(0, reach * reach - down * down));
    const first = max<i32>(x0, <i32>ceil<f32>(middleX - across));
    const last = min<i32>(x1, <i32>floor<f32>(middleX + across));
    const square = f32x4.splat(down * down);
    for (let x = first; x <= last; x += 4) {
      const right = f32x4.sub(f32x4.add(f32x4.splat(<f32>x), LANES), f32x4.splat(middleX));
      const away = f32x4.mul(f32x4.sqrt(f32x4.add(f32x4.mul(right, right), square)), perReach);
      const t = f32x4.pmin(ONE, f32x4.pmax(ZERO, f32x4.mul(f32x4.sub(away, flat), perFall)));
      const part = f32x4.sub(ONE, f32x4.mul(f32x4.mul(t, t), f32x4.sub(THREE, f32x4.mul(TWO, t))));
      const at = out + (<usize>(y * width + x) << 2);
      if (x + 3 <= last) {
        const own = v128.load(at);
        v128.store(at, f32x4.add(own, f32x4.mul(f32x4.mul(taken, part), f32x4.sub(goal, own))));
        continue;
      }
      // The last pixels of a row one by one: those behind them may belong to another row.
      layOne(at, share * f32x4.extract_lane(part, 0), full);
      if (x + 1 <= last) layOne(at + 4, share * f32x4.extract_lane(part, 1), full);
      if (x + 2 <= last) layOne(at + 8, share * f32x4.extract_lane(part, 2), full);
    }
  }
}

function layOne(at: usize, share: f32, full: f32): void {
  const own = load<f32>(at);
  store<f32>(at, own + share * (full - own));
}
