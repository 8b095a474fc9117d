import type { Camera } from '../geometry/camera';
import type { Relief } from '../relief/relief-planes';
import type { Region } from '../plane/region';
import { FACED_ASIDE, facedBy } from './faced-by';
import { mirrorShine, ownSheen } from './own-sheen';
import { belowCutoff, NO_CUTOFF, type PointLight } from './point-light';

const INVERSE_PI = 1 / Math.PI;

/** Cosine under which no surface is seen: a pixel has some width. */
export const GRAZING = 0.01;

/**
 * Adds the illuminance of one small source to a plane of a region: `I n.l / d^2`, lux, on land, of as much of it as
 * lies before the surface (`facedBy`). Where a surface stands upright and its turn is not known, the cosine is its mean over all turns
 * that face the eye, which is (horizontal length of l + n.l) / pi. Where it is known, the surface's own rough sheen is added. A light that faces
 * somewhere shines there by its own cosine, or by a power of it, under its cut-off. What a surface gives back as a mirror does not
 * light the plate: it is added to `shine`, cd/m2, as wide as it sees the source and its own facets spread it.
 *
 * `out`, `shine` and the relief's planes have one float per pixel of `region`.
 */
export function addPointSpill(
  out: Float32Array,
  relief: Relief,
  camera: Camera,
  region: Region,
  light: PointLight,
  shine?: Float32Array,
): void {
  const { corner, across, down, eyeHeight } = camera;
  const [px, py, pz] = [light.place[0], light.place[1], light.place[2] - eyeHeight];
  const soft = light.radius * light.radius;
  const [fx, fy, fz] = light.facing ?? [0, 0, 0];
  const even = light.facing ? (light.even ?? 0) : 1;
  const { focus = 0, cutoff = NO_CUTOFF, clear = 0 } = light;
  const stepU = 1 / region.fullWidth;
  const u0 = (region.left + 0.5) * stepU;
  for (let y = 0; y < region.height; y++) {
    const v = (region.top + y + 0.5) / region.fullHeight;
    const rx = corner[0] + u0 * across[0] + v * down[0];
    const ry = corner[1] + u0 * across[1] + v * down[1];
    const rz = corner[2] + u0 * across[2] + v * down[2];
    for (let x = 0, i = y * region.width; x < region.width; x++, i++) {
      const along = x * stepU;
      const reach = relief.reach[i];
      const lx = px - (rx + along * across[0]) * reach;
      const ly = py - (ry + along * across[1]) * reach;
      const lz = pz - (rz + along * across[2]) * reach;
      const level = lx * lx + ly * ly;
      const d2 = level + lz * lz + soft;
      const facing = lx * relief.normalX[i] + ly * relief.normalY[i] + lz * relief.normalZ[i];
      const turned = (Math.sqrt(level + FACED_ASIDE * soft) + facing) * INVERSE_PI;
      const unknownFacing = relief.unknownFacing[i];
      const distance = Math.sqrt(d2);
      const nl = facedBy(facing / distance, light.radius / distance);
      const sheen = relief.sheen[i];
      let known = 0;
      let mirrored = 0;
      if (nl > 0) {
        const vx = rx + along * across[0];
        const vy = ry + along * across[1];
        const vz = rz + along * across[2];
        const ray = Math.sqrt(vx * vx + vy * vy + vz * vz);
        const seen = vx * relief.normalX[i] + vy * relief.normalY[i] + vz * relief.normalZ[i];
        const lv = -(lx * vx + ly * vy + lz * vz) / (ray * distance);
        const nv = Math.max(GRAZING, -seen / ray);
        known = nl + ownSheen(nl, nv, lv);
        if (sheen > 0) {
          mirrored = sheen * INVERSE_PI * mirrorShine(nl, nv, lv, relief.alpha[i], light.radius / distance);
        }
      }
      const cosine = known * (1 - unknownFacing) + (Math.max(0, turned) * unknownFacing) / distance;
      let ahead = Math.max(0, -(lx * fx + ly * fy + lz * fz + clear) / distance);
      for (let k = 0; k < focus; k++) ahead *= ahead;
      const sent = even + ahead * belowCutoff(cutoff, -lz / distance);
      const lit = (relief.land[i] * light.spillCandela * sent) / d2;
      out[i] += lit * cosine * (1 - sheen);
      if (shine) shine[i] += lit * mirrored;
    }
  }
}
