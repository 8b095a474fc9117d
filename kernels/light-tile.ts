import { clamped, ONE, ZERO } from './film';
import {
  FACED_ASIDE_SHARE, LIGHT_RADIUS, LIT_AIR, LIT_ALPHA, LIT_LAND, LIT_NORMAL_X, LIT_NORMAL_Y, LIT_NORMAL_Z,
  LIT_REACH, LIT_SHEEN, LIT_SHINE, LIT_SPILL, LIT_UNKNOWN_FACING, PER_CUTOFF_SOFT, TILE_RAYS,
} from './generated';
import { seenPast } from './occlusion';
import { halfLength, mirrorShine, ownSheen } from './sheen';
import { scatteredAt } from './point-air';
import { inTile, SEEN } from './tile';

/*
 * One light on one tile, four pixels at a time, spill and air in one pass. Twin of src/core/light/add-point-spill.ts and
 * src/core/light/add-point-air.ts: same formulas, 32-bit, with a polynomial atan.
 */

const LANES = f32x4(0, 1, 2, 3);
const PER_CUTOFF = f32x4.splat(PER_CUTOFF_SOFT);
/** One over pi. */
const INVERSE_PI = f32x4.splat(0.3183098862);
const HALF = f32x4.splat(0.5);
const TWO = f32x4.splat(2);
const QUARTER = f32x4.splat(0.25);
const LEAST = f32x4.splat(1e-6);
const FACED_ASIDE = f32x4.splat(FACED_ASIDE_SHARE);

/** As facedBy of the core. */
@inline
function facedBy(cosine: v128, size: v128): v128 {
  const above = f32x4.pmax(ZERO, f32x4.add(cosine, size));
  const part = f32x4.pmin(above, f32x4.mul(TWO, size));
  const cut = f32x4.div(f32x4.mul(f32x4.mul(part, part), QUARTER), f32x4.pmax(LEAST, size));
  return f32x4.add(cut, f32x4.sub(above, part));
}

/** Adds one light to a tile: to its land, its air, or both. `near`: what may cast a shadow on it. */
export function lightTile(
  planes: usize,
  rays: usize,
  light: usize,
  tile: usize,
  occluders: usize,
  near: usize,
  isLand: bool,
  inAir: bool,
  width: i32,
  left: i32,
  right: i32,
  top: i32,
  bottom: i32,
): void {
  if (!isLand && !inAir) return;
  const spill: usize = load<u32>(planes + LIT_SPILL);
  const air: usize = load<u32>(planes + LIT_AIR);
  const shine: usize = load<u32>(planes + LIT_SHINE);
  const reachPlane: usize = load<u32>(planes + LIT_REACH);
  const normalX: usize = load<u32>(planes + LIT_NORMAL_X);
  const normalY: usize = load<u32>(planes + LIT_NORMAL_Y);
  const normalZ: usize = load<u32>(planes + LIT_NORMAL_Z);
  const unknownFacingPlane: usize = load<u32>(planes + LIT_UNKNOWN_FACING);
  const land: usize = load<u32>(planes + LIT_LAND);
  const sheenPlane: usize = load<u32>(planes + LIT_SHEEN);
  const alphaPlane: usize = load<u32>(planes + LIT_ALPHA);
  const stepX = v128.load32_splat(rays + 12);
  const stepY = v128.load32_splat(rays + 16);
  const stepZ = v128.load32_splat(rays + 20);
  const px = v128.load32_splat(light);
  const py = v128.load32_splat(light + 4);
  const pz = v128.load32_splat(light + 8);
  const spillCandela = v128.load32_splat(light + 12);
  const airScale = v128.load32_splat(light + 16);
  const soft = v128.load32_splat(light + 20);
  const radius = load<f32>(light + LIGHT_RADIUS);
  const facesX = v128.load32_splat(light + 28);
  const facesY = v128.load32_splat(light + 32);
  const facesZ = v128.load32_splat(light + 36);
  const even = v128.load32_splat(light + 40);
  const focus = <i32>load<f32>(light + 44);
  const cutoff = v128.load32_splat(light + 48);
  const isTurned = load<f32>(light + 52) > 0;
  const beam = v128.load32_splat(light + 56);
  const clear = v128.load32_splat(light + 60);

  for (let y = top; y < bottom; y++) {
    const row = <f32>y;
    const rowX = f32x4.splat(load<f32>(rays) + row * load<f32>(rays + 24));
    const rowY = f32x4.splat(load<f32>(rays + 4) + row * load<f32>(rays + 28));
    const rowZ = f32x4.splat(load<f32>(rays + 8) + row * load<f32>(rays + 32));
    for (let x = left; x < right; x += 4) {
      // The last group reaches back over pixels that are done; what it adds there is masked out.
      const overlap = x > width - 4 ? x - (width - 4) : 0;
      const start = x - overlap;
      const at = <usize>(y * width + start) << 2;
      const own = tile + inTile(x - left, y - top);
      const along = f32x4.add(f32x4.splat(<f32>start), LANES);
      const rx = f32x4.add(rowX, f32x4.mul(along, stepX));
      const ry = f32x4.add(rowY, f32x4.mul(along, stepY));
      const rz = f32x4.add(rowZ, f32x4.mul(along, stepZ));
      const perRay = v128.load(own + TILE_RAYS);
      const reach = v128.load(reachPlane + at);
      let lit = ZERO;
      let shone = ZERO;
      const onLand = v128.load(land + at);
      const isOnLand = f32x4.gt(onLand, ZERO);
      if (isLand && v128.any_true(isOnLand)) {
        const lx = f32x4.sub(px, f32x4.mul(rx, reach));
        const ly = f32x4.sub(py, f32x4.mul(ry, reach));
        const lz = f32x4.sub(pz, f32x4.mul(rz, reach));
        const leaving = f32x4.add(
          f32x4.add(f32x4.mul(lx, facesX), f32x4.mul(ly, facesY)),
          f32x4.mul(lz, facesZ),
        );
        const level = f32x4.add(f32x4.mul(lx, lx), f32x4.mul(ly, ly));
        const way2 = f32x4.add(level, f32x4.mul(lz, lz));
        const inBeam = v128.and(
          f32x4.lt(leaving, ZERO),
          f32x4.ge(f32x4.mul(leaving, leaving), f32x4.mul(beam, way2)),
        );
        const reached = v128.and(isOnLand, v128.or(f32x4.gt(even, ZERO), inBeam));
        if (v128.any_true(reached)) {
          const d2 = f32x4.add(way2, soft);
          const per2 = f32x4.div(ONE, d2);
          const perDistance = f32x4.sqrt(per2);
          const facing = f32x4.add(
            f32x4.add(f32x4.mul(lx, v128.load(normalX + at)), f32x4.mul(ly, v128.load(normalY + at))),
            f32x4.mul(lz, v128.load(normalZ + at)),
          );
          const unknownFacing = v128.load(unknownFacingPlane + at);
          const nl = facedBy(f32x4.mul(facing, perDistance), f32x4.mul(f32x4.splat(radius), perDistance));
          const isBefore = f32x4.gt(nl, ZERO);
          const nv = v128.load(own + SEEN);
          let cosine = ZERO;
          let half = ZERO;
          if (v128.any_true(isBefore)) {
            const toEye = f32x4.add(f32x4.add(f32x4.mul(lx, rx), f32x4.mul(ly, ry)), f32x4.mul(lz, rz));
            half = halfLength(f32x4.neg(f32x4.mul(toEye, f32x4.mul(perRay, perDistance))));
            const known = v128.and(f32x4.add(nl, ownSheen(nl, nv, half)), isBefore);
            cosine = f32x4.mul(known, f32x4.sub(ONE, unknownFacing));
          }
          if (v128.any_true(f32x4.gt(unknownFacing, ZERO))) {
            const turned = f32x4.mul(
              f32x4.add(f32x4.sqrt(f32x4.add(level, f32x4.mul(soft, FACED_ASIDE))), facing),
              INVERSE_PI,
            );
            const mean = f32x4.mul(f32x4.mul(f32x4.pmax(ZERO, turned), unknownFacing), perDistance);
            cosine = f32x4.add(cosine, mean);
          }
          let reaching = f32x4.mul(f32x4.mul(onLand, spillCandela), per2);
          if (isTurned) {
            let ahead = f32x4.pmax(ZERO, f32x4.neg(f32x4.mul(f32x4.add(leaving, clear), perDistance)));
            for (let k = 0; k < focus; k++) ahead = f32x4.mul(ahead, ahead);
            const under = f32x4.add(
              f32x4.mul(f32x4.add(cutoff, f32x4.mul(lz, perDistance)), PER_CUTOFF),
              HALF,
            );
            const sent = f32x4.mul(ahead, clamped(under));
            reaching = f32x4.mul(reaching, f32x4.add(even, sent));
          }
          lit = f32x4.mul(reaching, cosine);
          if (shine != 0) {
            const sheen = v128.load(sheenPlane + at);
            lit = f32x4.mul(lit, f32x4.sub(ONE, sheen));
            if (v128.any_true(v128.and(isBefore, f32x4.gt(sheen, ZERO)))) {
              const seenSize = f32x4.mul(f32x4.splat(radius), perDistance);
              const mirrored = mirrorShine(nl, nv, half, v128.load(alphaPlane + at), seenSize);
              const sent = f32x4.mul(f32x4.mul(f32x4.mul(reaching, sheen), INVERSE_PI), mirrored);
              shone = v128.and(sent, isBefore);
            }
          }
          if (occluders != 0 && v128.any_true(v128.or(f32x4.gt(lit, ZERO), f32x4.gt(shone, ZERO)))) {
            const seenX = f32x4.mul(rx, reach);
            const seenY = f32x4.mul(ry, reach);
            const seenZ = f32x4.mul(rz, reach);
            const seen = seenPast(occluders, near, seenX, seenY, seenZ, lx, ly, lz, radius);
            lit = f32x4.mul(lit, seen);
            shone = f32x4.mul(shone, seen);
          }
        }
      }

      const fresh = i32x4.ge_s(i32x4(0, 1, 2, 3), i32x4.splat(overlap));
      if (v128.any_true(lit)) {
        v128.store(spill + at, f32x4.add(v128.load(spill + at), v128.and(lit, fresh)));
      }
      if (v128.any_true(shone)) {
        v128.store(shine + at, f32x4.add(v128.load(shine + at), v128.and(shone, fresh)));
      }
      if (!inAir) continue;
      const scattered = scatteredAt(px, py, pz, rx, ry, rz, perRay, reach, soft, airScale);
      v128.store(air + at, f32x4.add(v128.load(air + at), v128.and(scattered, fresh)));
    }
  }
}
