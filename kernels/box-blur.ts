/* A running mean over a square, four lines at a time. The same as src/core/plane/box-blur.ts, 32-bit. */
import { ZERO } from './film';

/** A place of four lines that lie `apart` bytes from each other. */
@inline
function gathered(at: usize, apart: usize): v128 {
  return f32x4(load<f32>(at), load<f32>(at + apart), load<f32>(at + 2 * apart), load<f32>(at + 3 * apart));
}

@inline
function spread(at: usize, apart: usize, values: v128): void {
  store<f32>(at, f32x4.extract_lane(values, 0));
  store<f32>(at + apart, f32x4.extract_lane(values, 1));
  store<f32>(at + 2 * apart, f32x4.extract_lane(values, 2));
  store<f32>(at + 3 * apart, f32x4.extract_lane(values, 3));
}

/** One over the pixels of a window, cut at the ends of its line. */
@inline
function shareAt(place: i32, length: i32, radius: i32): v128 {
  const pixels = min<i32>(length - 1, place + radius) - max<i32>(0, place - radius) + 1;
  return f32x4.splat(<f32>1 / <f32>pixels);
}

function alongRows(out: usize, source: usize, width: i32, height: i32, radius: i32): void {
  const apart = <usize>width << 2;
  for (let line = 0; line < height; line += 4) {
    // The last four reach back over rows that are done: they come to the same.
    const row = <usize>min<i32>(line, height - 4) * apart;
    const from = source + row;
    const to = out + row;
    let sum = ZERO;
    for (let x = 0; x < min<i32>(radius, width); x++) sum = f32x4.add(sum, gathered(from + (<usize>x << 2), apart));
    for (let x = 0; x < width; x++) {
      if (x + radius < width) sum = f32x4.add(sum, gathered(from + (<usize>(x + radius) << 2), apart));
      if (x > radius) sum = f32x4.sub(sum, gathered(from + (<usize>(x - radius - 1) << 2), apart));
      spread(to + (<usize>x << 2), apart, f32x4.mul(sum, shareAt(x, width, radius)));
    }
  }
}

function alongColumns(out: usize, source: usize, width: i32, height: i32, radius: i32): void {
  const step = <usize>width << 2;
  for (let line = 0; line < width; line += 4) {
    const column = <usize>min<i32>(line, width - 4) << 2;
    const from = source + column;
    const to = out + column;
    let sum = ZERO;
    for (let y = 0; y < min<i32>(radius, height); y++) sum = f32x4.add(sum, v128.load(from + <usize>y * step));
    for (let y = 0; y < height; y++) {
      if (y + radius < height) sum = f32x4.add(sum, v128.load(from + <usize>(y + radius) * step));
      if (y > radius) sum = f32x4.sub(sum, v128.load(from + <usize>(y - radius - 1) * step));
      v128.store(to + <usize>y * step, f32x4.mul(sum, shareAt(y, height, radius)));
    }
  }
}

/** Blurs a plane of `width` by `height`, at least 4 by 4. `out` may be `source`; `scratch` is a plane of that size. */
export function boxBlur(out: usize, source: usize, scratch: usize, width: i32, height: i32, radius: i32): void {
  alongRows(scratch, source, width, height, radius);
  alongColumns(out, scratch, width, height, radius);
}
