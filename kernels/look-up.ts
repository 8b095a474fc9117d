/* A look-up table, curves or a cube, on four pixels. The same as src/core/grade/cube-lut.ts. */
import { NIGHT_PARAMS_LUT_MIN, NIGHT_PARAMS_LUT_SPAN } from './generated';

/** Where a channel falls on its side of the look-up table. */
@inline
function lutPlace(tone: f32, params: usize, channel: usize, last: f32): f32 {
  const low = load<f32>(params + NIGHT_PARAMS_LUT_MIN + channel);
  return min<f32>(last, max<f32>(0, (tone - low) * load<f32>(params + NIGHT_PARAMS_LUT_SPAN + channel)));
}

/**
 * Three tones at `pixel` (planes of four, 16 bytes apart) through the look-up table, tetrahedral inside a cube. Entries are
 * 16 bytes: red, green, blue and nothing.
 */
@inline
export function lookUp(pixel: usize, lut: usize, params: usize, size: i32, curves: bool): void {
  const last = size - 1;
  const r = lutPlace(load<f32>(pixel), params, 0, <f32>last);
  const g = lutPlace(load<f32>(pixel + 16), params, 4, <f32>last);
  const b = lutPlace(load<f32>(pixel + 32), params, 8, <f32>last);
  const r0 = min<i32>(last - 1, <i32>r);
  const g0 = min<i32>(last - 1, <i32>g);
  const b0 = min<i32>(last - 1, <i32>b);
  const fr = r - <f32>r0;
  const fg = g - <f32>g0;
  const fb = b - <f32>b0;
  if (curves) {
    const atR = lut + <usize>(r0 << 4);
    const atG = lut + <usize>((g0 << 4) + 4);
    const atB = lut + <usize>((b0 << 4) + 8);
    store<f32>(pixel, load<f32>(atR) + fr * (load<f32>(atR + 16) - load<f32>(atR)));
    store<f32>(pixel + 16, load<f32>(atG) + fg * (load<f32>(atG + 16) - load<f32>(atG)));
    store<f32>(pixel + 32, load<f32>(atB) + fb * (load<f32>(atB + 16) - load<f32>(atB)));
    return;
  }
  const stepR: i32 = 16;
  const stepG: i32 = size << 4;
  const stepB: i32 = stepG * size;
  const origin = lut + <usize>(r0 * stepR + g0 * stepG + b0 * stepB);
  const most = max<f32>(fr, max<f32>(fg, fb));
  const least = min<f32>(fr, min<f32>(fg, fb));
  const middle = fr + fg + fb - most - least;
  // The largest fraction is walked first, the least last; with equal ones either way gives the same.
  const firstStep = select<i32>(stepR, select<i32>(stepG, stepB, fg >= fb), fr >= fg && fr >= fb);
  const lastStep = select<i32>(stepB, select<i32>(stepG, stepR, fg <= fr), fb <= fg && fb <= fr);
  const third = origin + <usize>(stepR + stepG + stepB);
  const looked = f32x4.add(
    f32x4.add(
      f32x4.mul(v128.load(origin), f32x4.splat(1 - most)),
      f32x4.mul(v128.load(origin + <usize>firstStep), f32x4.splat(most - middle)),
    ),
    f32x4.add(
      f32x4.mul(v128.load(third - <usize>lastStep), f32x4.splat(middle - least)),
      f32x4.mul(v128.load(third), f32x4.splat(least)),
    ),
  );
  store<f32>(pixel, f32x4.extract_lane(looked, 0));
  store<f32>(pixel + 16, f32x4.extract_lane(looked, 1));
  store<f32>(pixel + 32, f32x4.extract_lane(looked, 2));
}
