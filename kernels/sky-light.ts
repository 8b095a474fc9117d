/*
 * The sky behind the skyline before faders weigh it, four pixels at a time. The same as `skyLight` of src/core/sky/sky-light.ts without a
 * picture that is laid, 32-bit.
 */
import { fading } from './fading';
import { luminance, ONE, splatAt, ZERO } from './film';
import { logarithm } from './logarithm';
import { begin, ready, readyAll, seenAt } from './small';
import {
  CLOUD_BRIGHT, CLOUD_OWN, CLOUD_THICK, OWN_LEAST, OWN_MOST, PART, SKY_ALL_LAND, SMALL_BYTES, TOWN_LIGHT, TOWN_THIN,
} from './generated';

const ALL_LAND = f32x4.splat(SKY_ALL_LAND);
const LEAST = f32x4.splat(OWN_LEAST);
const MOST = f32x4.splat(OWN_MOST);
const DARK = f32x4.splat(1e-4);

/**
 * Sums up the sky of `rows` rows of a region of `width`, at least 4. `planes`: offsets of out r, g, b and cloud or 0, plate r, g, b, land.
 * `smalls`: the small pictures of the twilight r, g, b, the town r, g, b, the plate's own sky, and clouds (see SMALL in src/engine/kernels/layout.ts). `above`: light of the
 * twilight's mean r, g, b, and the share of the plate's own clouds. `lines`: room for two lines of each small picture.
 */
export function skyLight(planes: usize, smalls: usize, above: usize, lines: usize, width: i32, rows: i32): void {
  const cloud = load<u32>(planes + 12);
  const plateR = load<u32>(planes + 16);
  const plateG = load<u32>(planes + 20);
  const plateB = load<u32>(planes + 24);
  const land = load<u32>(planes + 28);
  const own = splatAt(above, 12);
  const hasOwn = load<f32>(above + 12) > 0;
  const most = f32x4.mul(own, logarithm(MOST));
  const broad = smalls + 6 * SMALL_BYTES;
  const cover = smalls + 7 * SMALL_BYTES;
  for (let part = 0; part < width; part += PART) {
    // The last four of a row, or of a part, reach back over pixels that are done: they come to the same.
    const first = min<i32>(part, width - 4);
    const count = min<i32>(PART, width - first);
    begin(smalls, 8, lines);
    for (let y = 0; y < rows; y++) {
      const row = <usize>(y * width + first) << 2;
      readyAll(smalls, 6, y, first, count);
      if (hasOwn) ready(broad, y, first, count);
      if (cloud) ready(cover, y, first, count);
      for (let x = 0; x < count; x += 4) {
        const along = <usize>min<i32>(x, count - 4) << 2;
        const at = row + along;
        if (!v128.any_true(f32x4.lt(v128.load(land + at), ALL_LAND))) continue;
        let factor = ONE;
        if (hasOwn) {
          const day = luminance(v128.load(plateR + at), v128.load(plateG + at), v128.load(plateB + at));
          const told = f32x4.div(day, f32x4.pmax(DARK, seenAt(broad, along)));
          const within = f32x4.pmin(MOST, f32x4.pmax(LEAST, told));
          const rest = f32x4.sub(most, f32x4.mul(own, logarithm(within)));
          factor = f32x4.div(fading(f32x4.pmax(ZERO, rest)), fading(most));
        }
        const thick = cloud ? seenAt(cover, along) : ZERO;
        const onCloud = f32x4.mul(
          f32x4.splat(CLOUD_BRIGHT),
          f32x4.sub(ONE, f32x4.mul(f32x4.splat(CLOUD_THICK), thick)),
        );
        const fromTown = f32x4.mul(
          f32x4.splat(TOWN_LIGHT),
          f32x4.add(f32x4.splat(TOWN_THIN), f32x4.mul(f32x4.splat(1 - TOWN_THIN), thick)),
        );
        for (let c: usize = 0; c < 3; c++) {
          const sky = seenAt(smalls + c * SMALL_BYTES, along);
          const town = seenAt(smalls + (c + 3) * SMALL_BYTES, along);
          const clear = f32x4.mul(factor, f32x4.add(sky, town));
          const fromSky = f32x4.add(
            f32x4.mul(f32x4.splat(CLOUD_OWN), sky),
            f32x4.mul(f32x4.splat(1 - CLOUD_OWN), splatAt(above, c << 2)),
          );
          const lit = f32x4.add(f32x4.mul(onCloud, fromSky), f32x4.mul(fromTown, town));
          v128.store(load<u32>(planes + (c << 2)) + at, f32x4.add(clear, f32x4.mul(thick, f32x4.sub(lit, clear))));
        }
        if (cloud) v128.store(cloud + at, thick);
      }
    }
  }
}
