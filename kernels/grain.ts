/*
 * The grain of a night exposure, a pixel at a time: its four deviates, or its channels, are one vector. The same as `addGrain` of
 * src/core/lens/grain.ts, 32-bit.
 */
import { LUMINANCE_B, LUMINANCE_G, LUMINANCE_R, SECOND_GRAIN } from './generated';
import { ZERO } from './film';

const HALF = f32x4.splat(0.5);

/** Bits of a place and a seed, stirred (Wellons 2018, lowbias32). */
@inline
function bitsAt(x: u32, y: u32, seed: u32): u32 {
  let h = (x * 0x9e3779b1) ^ (y * 0x85ebca6b) ^ (seed * 0x27d4eb2f);
  h = (h ^ (h >> 16)) * 0x7feb352d;
  h = (h ^ (h >> 15)) * 0x846ca68b;
  return h ^ (h >> 16);
}

/** Deviates of a place: one of each channel's own, and one that all share. */
@inline
function deviatesAt(table: usize, x: i32, y: i32, seed: i32): v128 {
  const first = bitsAt(x, y, seed);
  const second = bitsAt(x, y, seed + SECOND_GRAIN);
  return f32x4(
    load<f32>(table + (<usize>(first >> 16) << 2)),
    load<f32>(table + (<usize>(second & 0xffff) << 2)),
    load<f32>(table + (<usize>(second >> 16) << 2)),
    load<f32>(table + (<usize>(first & 0xffff) << 2)),
  );
}

@inline
function mixed(from: v128, to: v128, part: f32): v128 {
  return f32x4.add(from, f32x4.mul(f32x4.splat(part), f32x4.sub(to, from)));
}

/**
 * Adds grain to `rows` rows of `width` pixels that begin at `left`, `top` of their picture. `table`: 65536 deviates. `params`: share of the
 * common deviate and of a channel's own, by how much all is lessened, light of white, light that reading comes to, grains a pixel is
 * broad.
 */
export function addGrain(
  red: usize,
  green: usize,
  blue: usize,
  table: usize,
  params: usize,
  seed: i32,
  left: i32,
  top: i32,
  width: i32,
  rows: i32,
): void {
  const common = load<f32>(params);
  const own = v128.load32_splat(params + 4);
  const scale = v128.load32_splat(params + 8);
  const perWhite = v128.load32_splat(params + 12);
  const read = v128.load32_splat(params + 16);
  const perPixel = load<f32>(params + 20);
  const isCoarse = perPixel > 1;
  let at: usize = 0;
  for (let y = top; y < top + rows; y++) {
    const line = <f32>y / perPixel;
    const row = <i32>floor<f32>(line);
    const down = line - <f32>row;
    let known = i32.MIN_VALUE;
    let above = ZERO;
    let aboveNext = ZERO;
    let below = ZERO;
    let belowNext = ZERO;
    for (let x = left; x < left + width; x++, at += 4) {
      let deviates: v128;
      if (isCoarse) {
        const place = <f32>x / perPixel;
        const column = <i32>floor<f32>(place);
        if (column !== known) {
          above = deviatesAt(table, column, row, seed);
          aboveNext = deviatesAt(table, column + 1, row, seed);
          below = deviatesAt(table, column, row + 1, seed);
          belowNext = deviatesAt(table, column + 1, row + 1, seed);
          known = column;
        }
        const aside = place - <f32>column;
        const spread = sqrt<f32>(((1 - aside) * (1 - aside) + aside * aside) * ((1 - down) * (1 - down) + down * down));
        deviates = mixed(mixed(above, aboveNext, aside), mixed(below, belowNext, aside), down);
        deviates = f32x4.mul(deviates, f32x4.splat(1 / spread));
      } else {
        deviates = deviatesAt(table, x, y, seed);
      }
      const r = load<f32>(red + at);
      const g = load<f32>(green + at);
      const b = load<f32>(blue + at);
      const light = f32x4(r, g, b, 0);
      const grey = f32x4.splat(LUMINANCE_R * r + LUMINANCE_G * g + LUMINANCE_B * b);
      const shared = f32x4.splat(common * f32x4.extract_lane(deviates, 3));
      const held = f32x4.pmax(ZERO, f32x4.mul(HALF, f32x4.add(light, grey)));
      const noise = f32x4.mul(scale, f32x4.sqrt(f32x4.add(f32x4.mul(held, perWhite), read)));
      const noisy = f32x4.add(light, f32x4.mul(noise, f32x4.add(shared, f32x4.mul(own, deviates))));
      const out = f32x4.pmax(ZERO, noisy);
      store<f32>(red + at, f32x4.extract_lane(out, 0));
      store<f32>(green + at, f32x4.extract_lane(out, 1));
      store<f32>(blue + at, f32x4.extract_lane(out, 2));
    }
  }
}
