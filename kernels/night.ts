/* The night's base, four pixels at a time. The same as src/core/night/night-base.ts and src/core/grade/: same formulas, 32-bit. */
import {
  GRADE_STEPS,
  NIGHT_PARAMS_BEND,
  NIGHT_PARAMS_DARKEST,
  NIGHT_PARAMS_KNEE,
  NIGHT_PARAMS_LOW,
  NIGHT_PARAMS_LUT_DIMENSIONS,
  NIGHT_PARAMS_LUT_SIZE,
  NIGHT_PARAMS_LUT_STRENGTH,
  NIGHT_PARAMS_ON_LUMINANCE,
  NIGHT_PARAMS_STRETCH,
  NIGHT_PARAMS_TONE_STRENGTH,
  TABLES_BY_TONE,
  TABLES_DECODE,
  TABLES_ENCODE,
  TONE_STEPS,
} from './generated';
import { lookUp } from './look-up';
import { clamped, develop, luminance, ONE, splatAt, undevelop, ZERO } from './film';

const STEP_COUNT = f32x4.splat(<f32>GRADE_STEPS);
const LAST_STEP = i32x4.splat(GRADE_STEPS - 1);
const LAST_TONE = i32x4.splat(TONE_STEPS - 1);

/** Values of a table between its entries, at four places; `stride` in bytes from an entry to the next. */
@inline
function read(table: usize, at: v128, last: v128, stride: i32): v128 {
  const low = i32x4.min_s(last, i32x4.trunc_sat_f32x4_s(at));
  const part = f32x4.sub(at, f32x4.convert_i32x4_s(low));
  const offset = i32x4.mul(low, i32x4.splat(stride));
  const a = table + <usize>i32x4.extract_lane(offset, 0);
  const b = table + <usize>i32x4.extract_lane(offset, 1);
  const c = table + <usize>i32x4.extract_lane(offset, 2);
  const d = table + <usize>i32x4.extract_lane(offset, 3);
  let from = v128.load32_zero(a);
  from = v128.load32_lane(b, from, 1);
  from = v128.load32_lane(c, from, 2);
  from = v128.load32_lane(d, from, 3);
  let to = v128.load32_zero(a + <usize>stride);
  to = v128.load32_lane(b + <usize>stride, to, 1);
  to = v128.load32_lane(c + <usize>stride, to, 2);
  to = v128.load32_lane(d + <usize>stride, to, 3);
  return f32x4.add(from, f32x4.mul(part, f32x4.sub(to, from)));
}

@inline
function overRoot(table: usize, light: v128): v128 {
  return read(table, f32x4.mul(f32x4.sqrt(clamped(light)), STEP_COUNT), LAST_STEP, 4);
}

/**
 * The plate under ambient light alone, for `count` pixels, at least 4; the last ones are done twice where it is no
 * multiple of 4. `open`: factors of the surroundings, or 0. `tables`: of a grade, or 0. `lut`: entries of a look-up table,
 * or 0. `pixels`: 48 bytes of scratch. `params`: gains r, g, b, saturation, weights of the faded grey r, g, b, hold, square
 * of its middle, toe, inset, brightest display light, darkest luminance; then the grade's.
 */
export function nightBase(
  outR: usize,
  outG: usize,
  outB: usize,
  plateR: usize,
  plateG: usize,
  plateB: usize,
  open: usize,
  tables: usize,
  lut: usize,
  params: usize,
  pixels: usize,
  count: i32,
): void {
  const gainR = splatAt(params, 0);
  const gainG = splatAt(params, 4);
  const gainB = splatAt(params, 8);
  const saturation = splatAt(params, 12);
  const fadedR = splatAt(params, 16);
  const fadedG = splatAt(params, 20);
  const fadedB = splatAt(params, 24);
  const hold = splatAt(params, 28);
  const holdMiddle = splatAt(params, 32);
  const toe = splatAt(params, 36);
  const inset = splatAt(params, 40);
  const brightest = splatAt(params, 44);
  const keep = f32x4.sub(ONE, inset);
  const perKeep = f32x4.div(ONE, keep);
  const drain = f32x4.sub(ONE, saturation);

  const graded = tables != 0;
  const onLuminance = graded && load<f32>(params + NIGHT_PARAMS_ON_LUMINANCE) > 0;
  const strength = splatAt(params, NIGHT_PARAMS_TONE_STRENGTH);
  const colored = graded && load<f32>(params + NIGHT_PARAMS_TONE_STRENGTH) > 0;
  const low = splatAt(params, NIGHT_PARAMS_LOW);
  const stretch = splatAt(params, NIGHT_PARAMS_STRETCH);
  const knee = splatAt(params, NIGHT_PARAMS_KNEE);
  const bend = splatAt(params, NIGHT_PARAMS_BEND);
  const darkest = splatAt(params, NIGHT_PARAMS_DARKEST);
  const lutStrength = splatAt(params, NIGHT_PARAMS_LUT_STRENGTH);
  const looks = graded && load<f32>(params + NIGHT_PARAMS_LUT_STRENGTH) > 0;
  const lutSize = <i32>load<f32>(params + NIGHT_PARAMS_LUT_SIZE);
  const curves = <i32>load<f32>(params + NIGHT_PARAMS_LUT_DIMENSIONS) == 1;
  const toneCount = f32x4.splat(<f32>TONE_STEPS);

  let x = 0;
  while (x < count) {
    if (x > count - 4) x = count - 4;
    const at = <usize>x << 2;
    const r = v128.load(plateR + at);
    const g = v128.load(plateG + at);
    const b = v128.load(plateB + at);
    const l = luminance(r, g, b);
    const l2 = f32x4.mul(l, l);
    let left = f32x4.sub(ONE, f32x4.div(f32x4.mul(hold, l2), f32x4.add(l2, holdMiddle)));
    if (open) left = f32x4.mul(left, v128.load(open + at));
    const faded = f32x4.add(f32x4.add(f32x4.mul(fadedR, r), f32x4.mul(fadedG, g)), f32x4.mul(fadedB, b));
    const grey = f32x4.mul(drain, f32x4.pmax(ZERO, faded));
    let sceneR = f32x4.mul(f32x4.mul(left, gainR), f32x4.add(grey, f32x4.mul(saturation, r)));
    let sceneG = f32x4.mul(f32x4.mul(left, gainG), f32x4.add(grey, f32x4.mul(saturation, g)));
    let sceneB = f32x4.mul(f32x4.mul(left, gainB), f32x4.add(grey, f32x4.mul(saturation, b)));
    if (tables) {
      const into = f32x4.mul(inset, luminance(sceneR, sceneG, sceneB));
      const filmR = develop(f32x4.add(f32x4.mul(keep, sceneR), into), toe);
      const filmG = develop(f32x4.add(f32x4.mul(keep, sceneG), into), toe);
      const filmB = develop(f32x4.add(f32x4.mul(keep, sceneB), into), toe);
      const back = f32x4.mul(inset, luminance(filmR, filmG, filmB));
      let dr = clamped(f32x4.mul(f32x4.sub(filmR, back), perKeep));
      let dg = clamped(f32x4.mul(f32x4.sub(filmG, back), perKeep));
      let db = clamped(f32x4.mul(f32x4.sub(filmB, back), perKeep));
      if (onLuminance) {
        const y4 = luminance(dr, dg, db);
        const shaped = overRoot(tables, y4);
        const gain = f32x4.div(shaped, f32x4.pmax(y4, darkest));
        const lift = f32x4.sub(shaped, f32x4.mul(gain, y4));
        dr = overRoot(tables + TABLES_ENCODE, f32x4.add(f32x4.mul(gain, dr), lift));
        dg = overRoot(tables + TABLES_ENCODE, f32x4.add(f32x4.mul(gain, dg), lift));
        db = overRoot(tables + TABLES_ENCODE, f32x4.add(f32x4.mul(gain, db), lift));
      } else {
        dr = overRoot(tables, dr);
        dg = overRoot(tables, dg);
        db = overRoot(tables, db);
      }
      if (colored) {
        const tone = f32x4.mul(clamped(luminance(dr, dg, db)), toneCount);
        const strip = tables + TABLES_BY_TONE;
        dr = f32x4.add(dr, f32x4.mul(strength, f32x4.sub(read(strip, tone, LAST_TONE, 12), dr)));
        dg = f32x4.add(dg, f32x4.mul(strength, f32x4.sub(read(strip + 4, tone, LAST_TONE, 12), dg)));
        db = f32x4.add(db, f32x4.mul(strength, f32x4.sub(read(strip + 8, tone, LAST_TONE, 12), db)));
      }
      dr = clamped(f32x4.mul(f32x4.sub(dr, low), stretch));
      dg = clamped(f32x4.mul(f32x4.sub(dg, low), stretch));
      db = clamped(f32x4.mul(f32x4.sub(db, low), stretch));
      if (looks) {
        v128.store(pixels, dr);
        v128.store(pixels + 16, dg);
        v128.store(pixels + 32, db);
        for (let k: usize = 0; k < 16; k += 4) lookUp(pixels + k, lut, params, lutSize, curves);
        dr = clamped(f32x4.add(dr, f32x4.mul(lutStrength, f32x4.sub(v128.load(pixels), dr))));
        dg = clamped(f32x4.add(dg, f32x4.mul(lutStrength, f32x4.sub(v128.load(pixels + 16), dg))));
        db = clamped(f32x4.add(db, f32x4.mul(lutStrength, f32x4.sub(v128.load(pixels + 32), db))));
      }
      // Over the knee of the ceiling tones are bent, all channels alike.
      const brightestTone = f32x4.pmax(f32x4.pmax(dr, dg), f32x4.pmax(db, darkest));
      const over = f32x4.pmax(ZERO, f32x4.sub(brightestTone, knee));
      const under = f32x4.sub(brightestTone, over);
      const bent = f32x4.add(under, f32x4.div(over, f32x4.add(ONE, f32x4.mul(over, bend))));
      const scale = f32x4.mul(STEP_COUNT, f32x4.div(bent, brightestTone));
      dr = read(tables + TABLES_DECODE, f32x4.mul(scale, dr), LAST_STEP, 4);
      dg = read(tables + TABLES_DECODE, f32x4.mul(scale, dg), LAST_STEP, 4);
      db = read(tables + TABLES_DECODE, f32x4.mul(scale, db), LAST_STEP, 4);
      const shared = f32x4.mul(inset, luminance(dr, dg, db));
      const lightR = undevelop(f32x4.add(f32x4.mul(keep, dr), shared), toe, brightest);
      const lightG = undevelop(f32x4.add(f32x4.mul(keep, dg), shared), toe, brightest);
      const lightB = undevelop(f32x4.add(f32x4.mul(keep, db), shared), toe, brightest);
      const away = f32x4.mul(inset, luminance(lightR, lightG, lightB));
      sceneR = f32x4.mul(f32x4.sub(lightR, away), perKeep);
      sceneG = f32x4.mul(f32x4.sub(lightG, away), perKeep);
      sceneB = f32x4.mul(f32x4.sub(lightB, away), perKeep);
    }
    v128.store(outR + at, sceneR);
    v128.store(outG + at, sceneG);
    v128.store(outB + at, sceneB);
    x += 4;
  }
}
