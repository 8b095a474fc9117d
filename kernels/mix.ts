/* The sum, developed, four pixels at a time. Twin of src/core/picture/mix-picture.ts: same formulas, 32-bit. */

/** A layer in memory, 64 bytes: spill, air, source plane; first and last + 1 row of the source plane; nine weights. */
const LAYER_BYTES: usize = 64;
const SPILL: usize = 0;
const AIR: usize = 4;
const SOURCE: usize = 8;
const SOURCE_FROM: usize = 12;
const SOURCE_TO: usize = 16;
const SPILL_WEIGHTS: usize = 20;
const AIR_WEIGHTS: usize = 32;
const SOURCE_WEIGHTS: usize = 44;

/** Weights of linear sRGB in luminance. */
const WR = f32x4.splat(0.2126);
const WG = f32x4.splat(0.7152);
const WB = f32x4.splat(0.0722);

const ZERO = f32x4.splat(0);
const ONE = f32x4.splat(1);

@inline
function splatAt(at: usize, offset: usize): v128 {
  return v128.load32_splat(at + offset);
}

@inline
function luminance(r: v128, g: v128, b: v128): v128 {
  return f32x4.add(f32x4.add(f32x4.mul(WR, r), f32x4.mul(WG, g)), f32x4.mul(WB, b));
}

@inline
function develop(light: v128, toe: v128): v128 {
  const x = f32x4.pmax(ZERO, light);
  // y / sqrt(1 + y^2) with y = a / b, without the inner division.
  const a = f32x4.mul(x, x);
  const b = f32x4.add(x, toe);
  return f32x4.div(a, f32x4.sqrt(f32x4.add(f32x4.mul(a, a), f32x4.mul(b, b))));
}

/** Adding 2^23 leaves a float's nearest whole number in its low mantissa bits. */
const WHOLE = f32x4.splat(8388608);
const LOW_BITS = i32x4.splat(0x7fffff);

@inline
function steps(display: v128, last: v128): v128 {
  const held = f32x4.pmin(ONE, f32x4.pmax(ZERO, display));
  return v128.and(f32x4.add(f32x4.mul(f32x4.sqrt(held), last), WHOLE), LOW_BITS);
}

@inline
function put(out: usize, codes: usize, r: i32, g: i32, b: i32): void {
  const red = <u32>load<u8>(codes + r);
  const green = <u32>load<u8>(codes + g);
  const blue = <u32>load<u8>(codes + b);
  store<u32>(out, red | (green << 8) | (blue << 16) | 0xff000000);
}

/**
 * Mixes rows of a region into RGBA bytes. `width` is at least 4; the last pixels of a row are done twice where it is no
 * multiple of 4. `params`: ambient r, g, b, saturation, toe, inset, weights of
 * the faded grey r, g, b, hold, square of its middle. `codes`: `codeSteps` bytes.
 */
export function mixRows(
  out: usize,
  plateR: usize,
  plateG: usize,
  plateB: usize,
  layers: usize,
  layerCount: i32,
  params: usize,
  codes: usize,
  codeSteps: i32,
  width: i32,
  from: i32,
  to: i32,
): void {
  const ambientR = splatAt(params, 0);
  const ambientG = splatAt(params, 4);
  const ambientB = splatAt(params, 8);
  const saturation = splatAt(params, 12);
  const toe = splatAt(params, 16);
  const inset = splatAt(params, 20);
  const fadedR = splatAt(params, 24);
  const fadedG = splatAt(params, 28);
  const fadedB = splatAt(params, 32);
  const hold = splatAt(params, 36);
  const holdMiddle = splatAt(params, 40);
  const keep = f32x4.sub(ONE, inset);
  const perKeep = f32x4.div(ONE, keep);
  const drain = f32x4.sub(ONE, saturation);
  const last = f32x4.splat(<f32>(codeSteps - 1));

  for (let y = from; y < to; y++) {
    let x = 0;
    while (x < width) {
      if (x > width - 4) x = width - 4;
      const pixel = <usize>(y * width + x);
      const at = pixel << 2;
      const r = v128.load(plateR + at);
      const g = v128.load(plateG + at);
      const b = v128.load(plateB + at);
      let lightR = ZERO;
      let lightG = ZERO;
      let lightB = ZERO;
      let addedR = ZERO;
      let addedG = ZERO;
      let addedB = ZERO;
      let layer = layers;
      for (let k = 0; k < layerCount; k++, layer += LAYER_BYTES) {
        const spill = v128.load(<usize>load<u32>(layer + SPILL) + at);
        const air = v128.load(<usize>load<u32>(layer + AIR) + at);
        lightR = f32x4.add(lightR, f32x4.mul(spill, splatAt(layer, SPILL_WEIGHTS)));
        lightG = f32x4.add(lightG, f32x4.mul(spill, splatAt(layer, SPILL_WEIGHTS + 4)));
        lightB = f32x4.add(lightB, f32x4.mul(spill, splatAt(layer, SPILL_WEIGHTS + 8)));
        addedR = f32x4.add(addedR, f32x4.mul(air, splatAt(layer, AIR_WEIGHTS)));
        addedG = f32x4.add(addedG, f32x4.mul(air, splatAt(layer, AIR_WEIGHTS + 4)));
        addedB = f32x4.add(addedB, f32x4.mul(air, splatAt(layer, AIR_WEIGHTS + 8)));
        const first = load<i32>(layer + SOURCE_FROM);
        if (y >= first && y < load<i32>(layer + SOURCE_TO)) {
          const source = v128.load(
            <usize>load<u32>(layer + SOURCE) + ((<usize>((y - first) * width + x)) << 2),
          );
          addedR = f32x4.add(addedR, f32x4.mul(source, splatAt(layer, SOURCE_WEIGHTS)));
          addedG = f32x4.add(addedG, f32x4.mul(source, splatAt(layer, SOURCE_WEIGHTS + 4)));
          addedB = f32x4.add(addedB, f32x4.mul(source, splatAt(layer, SOURCE_WEIGHTS + 8)));
        }
      }
      const l = luminance(r, g, b);
      const l2 = f32x4.mul(l, l);
      const left = f32x4.sub(ONE, f32x4.div(f32x4.mul(hold, l2), f32x4.add(l2, holdMiddle)));
      const faded = f32x4.add(f32x4.add(f32x4.mul(fadedR, r), f32x4.mul(fadedG, g)), f32x4.mul(fadedB, b));
      const grey = f32x4.mul(drain, f32x4.pmax(ZERO, faded));
      const sceneR = f32x4.add(
        f32x4.add(f32x4.mul(f32x4.mul(left, ambientR), f32x4.add(grey, f32x4.mul(saturation, r))), f32x4.mul(r, lightR)),
        addedR,
      );
      const sceneG = f32x4.add(
        f32x4.add(f32x4.mul(f32x4.mul(left, ambientG), f32x4.add(grey, f32x4.mul(saturation, g))), f32x4.mul(g, lightG)),
        addedG,
      );
      const sceneB = f32x4.add(
        f32x4.add(f32x4.mul(f32x4.mul(left, ambientB), f32x4.add(grey, f32x4.mul(saturation, b))), f32x4.mul(b, lightB)),
        addedB,
      );
      const into = f32x4.mul(inset, luminance(sceneR, sceneG, sceneB));
      const filmR = develop(f32x4.add(f32x4.mul(keep, sceneR), into), toe);
      const filmG = develop(f32x4.add(f32x4.mul(keep, sceneG), into), toe);
      const filmB = develop(f32x4.add(f32x4.mul(keep, sceneB), into), toe);
      const back = f32x4.mul(inset, luminance(filmR, filmG, filmB));
      const stepR = steps(f32x4.mul(f32x4.sub(filmR, back), perKeep), last);
      const stepG = steps(f32x4.mul(f32x4.sub(filmG, back), perKeep), last);
      const stepB = steps(f32x4.mul(f32x4.sub(filmB, back), perKeep), last);
      const target = out + at;
      put(target, codes, i32x4.extract_lane(stepR, 0), i32x4.extract_lane(stepG, 0), i32x4.extract_lane(stepB, 0));
      put(target + 4, codes, i32x4.extract_lane(stepR, 1), i32x4.extract_lane(stepG, 1), i32x4.extract_lane(stepB, 1));
      put(target + 8, codes, i32x4.extract_lane(stepR, 2), i32x4.extract_lane(stepG, 2), i32x4.extract_lane(stepB, 2));
      put(target + 12, codes, i32x4.extract_lane(stepR, 3), i32x4.extract_lane(stepG, 3), i32x4.extract_lane(stepB, 3));
      x += 4;
    }
  }
}
