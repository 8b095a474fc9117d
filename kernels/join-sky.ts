/* Land and sky by coverage, four pixels at a time. The same as `joinSky` of src/core/sky/behind-skyline.ts, 32-bit. */
import { fading } from './fading';
import { ONE, splatAt, ZERO } from './film';
import {
  CLOUD_KEEPS, CLOUD_TAKES, FORWARD_CLOUD, FORWARD_HAZE, HAZE_FARTHEST, HAZE_TOP, SKY_ALL_LAND, SKY_HAZE, SKY_LIGHT, SKY_MIST, SKY_MOON,
  SKY_PER_METRE, SKY_UNDER, SKY_WEIGHTS, UNDER_LOW, UNDER_REACH,
} from './generated';

const LANES = f32x4(0, 1, 2, 3);
const ALL_LAND = f32x4.splat(SKY_ALL_LAND);
const FOUR_PI: f32 = 12.566371;
const NEAREST = f32x4.splat(1 / HAZE_FARTHEST);
const PER_TOP = f32x4.splat(1 / HAZE_TOP);
const LOWER = f32x4.splat(UNDER_LOW - 1);
const PER_REACH = f32x4.splat(1 / UNDER_REACH);
const TAKES = f32x4.splat(CLOUD_TAKES);
const KEEPS = f32x4.splat(CLOUD_KEEPS);

/** `forwardScatter` of src/core/sky/moon-disc.ts. */
@inline
function scattered(cosine: v128, g: f32): v128 {
  const base = f32x4.sub(f32x4.splat(1 + g * g), f32x4.mul(f32x4.splat(2 * g), cosine));
  return f32x4.div(f32x4.splat((1 - g * g) / FOUR_PI), f32x4.mul(base, f32x4.sqrt(base)));
}

/** A channel: land's own light, and over what of it is bare the sky that haze leaves. */
@inline
function joined(
  night: usize,
  sky: usize,
  ambient: v128,
  perNit: v128,
  low: v128,
  sent: v128,
  left: v128,
  bare: v128,
  params: usize,
  channel: usize,
): v128 {
  const lit = f32x4.mul(ambient, v128.load(night));
  const own = f32x4.add(
    f32x4.mul(perNit, v128.load(sky)),
    f32x4.add(f32x4.mul(low, splatAt(params, SKY_UNDER + channel)), f32x4.mul(sent, splatAt(params, SKY_LIGHT + channel))),
  );
  const mist = splatAt(params, SKY_MIST + channel);
  const seen = f32x4.add(mist, f32x4.mul(left, f32x4.sub(own, mist)));
  const all = f32x4.add(lit, f32x4.mul(bare, f32x4.sub(seen, lit)));
  return v128.bitselect(all, lit, f32x4.gt(bare, ZERO));
}

/**
 * Joins `rows` rows of a region of `width`, at least 4. `planes`: offsets of out r, g, b, night r, g, b, sky r, g, b, land, and cloud or 0.
 * `params`: view rays, then weights (see SKY in src/engine/kernels/layout.ts); `hasMoon`: whether the moon gives light.
 */
export function joinSky(planes: usize, params: usize, hasMoon: bool, width: i32, rows: i32): void {
  const land = load<u32>(planes + 36);
  const cloud = load<u32>(planes + 40);
  const ambient = splatAt(params, SKY_WEIGHTS);
  const perNit = splatAt(params, SKY_WEIGHTS + 4);
  const perMetre = splatAt(params, SKY_PER_METRE);
  const haze = splatAt(params, SKY_HAZE);
  const stepX = splatAt(params, 12);
  const stepY = splatAt(params, 16);
  const stepZ = splatAt(params, 20);
  for (let y = 0; y < rows; y++) {
    const row = <f32>y;
    const rowX = f32x4.splat(load<f32>(params) + row * load<f32>(params + 24));
    const rowY = f32x4.splat(load<f32>(params + 4) + row * load<f32>(params + 28));
    const rowZ = f32x4.splat(load<f32>(params + 8) + row * load<f32>(params + 32));
    for (let x = 0; x < width; x += 4) {
      // The last four reach back over pixels that are done: they come to the same.
      const start = min<i32>(x, width - 4);
      const at = <usize>(y * width + start) << 2;
      const hidden = v128.load(land + at);
      const bare = v128.bitselect(f32x4.sub(ONE, hidden), ZERO, f32x4.lt(hidden, ALL_LAND));
      if (!v128.any_true(f32x4.gt(bare, ZERO))) {
        for (let c: usize = 0; c < 12; c += 4)
          v128.store(load<u32>(planes + c) + at, f32x4.mul(ambient, v128.load(load<u32>(planes + 12 + c) + at)));
        continue;
      }
      const along = f32x4.add(f32x4.splat(<f32>start), LANES);
      const rx = f32x4.add(rowX, f32x4.mul(along, stepX));
      const ry = f32x4.add(rowY, f32x4.mul(along, stepY));
      const rz = f32x4.add(rowZ, f32x4.mul(along, stepZ));
      const square = f32x4.add(f32x4.add(f32x4.mul(rx, rx), f32x4.mul(ry, ry)), f32x4.mul(rz, rz));
      const per = f32x4.div(ONE, f32x4.sqrt(square));
      const rise = f32x4.mul(rz, per);
      const thick = cloud ? v128.load(cloud + at) : ZERO;
      const above = f32x4.mul(f32x4.pmax(ZERO, rise), PER_REACH);
      const low = f32x4.mul(thick, f32x4.add(ONE, f32x4.mul(LOWER, f32x4.pmax(ZERO, f32x4.sub(ONE, above)))));
      let sent = ZERO;
      if (hasMoon) {
        const toward = f32x4.add(
          f32x4.add(f32x4.mul(rx, splatAt(params, SKY_MOON)), f32x4.mul(ry, splatAt(params, SKY_MOON + 4))),
          f32x4.mul(rz, splatAt(params, SKY_MOON + 8)),
        );
        const cosine = f32x4.mul(toward, per);
        const given = f32x4.mul(f32x4.mul(TAKES, thick), f32x4.sub(ONE, f32x4.mul(KEEPS, thick)));
        sent = f32x4.add(
          f32x4.mul(haze, scattered(cosine, FORWARD_HAZE)),
          f32x4.mul(given, scattered(cosine, FORWARD_CLOUD)),
        );
      }
      const left = fading(f32x4.div(perMetre, f32x4.pmax(NEAREST, f32x4.mul(rise, PER_TOP))));
      for (let c: usize = 0; c < 12; c += 4) {
        const night = load<u32>(planes + 12 + c) + at;
        const sky = load<u32>(planes + 24 + c) + at;
        v128.store(
          load<u32>(planes + c) + at,
          joined(night, sky, ambient, perNit, low, sent, left, bare, params, c),
        );
      }
    }
  }
}
