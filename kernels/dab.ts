/* A dab of a stroke, four pixels at a time. The same as `layDabs` of src/core/matte/paint-coverage.ts, 32-bit. */

const LANES = f32x4(0, 1, 2, 3);
const ZERO = f32x4.splat(0);

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
  // What a pixel takes at t of the fall from `inner` to the edge: share (1 - 3 t^2 + 2 t^3).
  const perFall = f32x4.splat(1 / (reach * (1 - inner)));
  const before = f32x4.splat(inner / (1 - inner));
  const taken = f32x4.splat(share);
  const cubic = f32x4.splat(2 * share);
  const square = f32x4.splat(-3 * share);
  const goal = f32x4.splat(full);
  const step = f32x4.splat(4);
  for (let y = y0; y <= y1; y++) {
    const down = <f32>y - middleY;
    const across = sqrt<f32>(max<f32>(0, reach * reach - down * down));
    const first = max<i32>(x0, <i32>ceil<f32>(middleX - across));
    const last = min<i32>(x1, <i32>floor<f32>(middleX + across));
    const downSquare = f32x4.splat(down * down);
    let right = f32x4.add(f32x4.splat(<f32>first - middleX), LANES);
    let at = out + (<usize>(y * width + first) << 2);
    let x = first;
    for (; x + 3 <= last; x += 4) {
      const takes = taking(right, downSquare, perFall, before, taken, square, cubic);
      const own = v128.load(at);
      v128.store(at, f32x4.add(own, f32x4.mul(takes, f32x4.sub(goal, own))));
      right = f32x4.add(right, step);
      at += 16;
    }
    if (x > last) continue;
    // The last pixels of a row one by one: those behind them may belong to another row.
    const takes = taking(right, downSquare, perFall, before, taken, square, cubic);
    layOne(at, f32x4.extract_lane(takes, 0), full);
    if (x + 1 <= last) layOne(at + 4, f32x4.extract_lane(takes, 1), full);
    if (x + 2 <= last) layOne(at + 8, f32x4.extract_lane(takes, 2), full);
  }
}

/** What four pixels take that lie `right` and the root of `downSquare` from the middle. */
@inline
function taking(
  right: v128,
  downSquare: v128,
  perFall: v128,
  before: v128,
  taken: v128,
  square: v128,
  cubic: v128,
): v128 {
  const away = f32x4.sqrt(f32x4.add(f32x4.mul(right, right), downSquare));
  const t = f32x4.pmax(ZERO, f32x4.sub(f32x4.mul(away, perFall), before));
  return f32x4.add(taken, f32x4.mul(f32x4.mul(t, t), f32x4.add(square, f32x4.mul(cubic, t))));
}

function layOne(at: usize, share: f32, full: f32): void {
  const own = load<f32>(at);
  store<f32>(at, own + share * (full - own));
}
