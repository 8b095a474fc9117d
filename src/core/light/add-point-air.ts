import type { Camera } from '../geometry/camera';
import type { Relief } from '../relief/relief-planes';
import type { Region } from '../plane/region';
import type { PointLight } from './point-light';

/**
 * Adds what thin even haze scatters toward the eye from one small source, along each pixel's view ray up to the surface:
 * single scattering of a point source in closed form, `I / (4 pi h) [atan((T - t0) / h) + atan(t0 / h)]` with h the
 * distance of the source from the ray, t0 the foot of that perpendicular and T the surface (after Sun, Ramamoorthi,
 * Narasimhan and Nayar 2005, without extinction). The two arc tangents are one angle: that under which the source sees
 * the ray. A light with a focus is left to `addBeamAir`. Times the scattering coefficient per metre it is cd/m2.
 *
 * `out` and `reach` have one float per pixel of `region`.
 */
export function addPointAir(
  out: Float32Array,
  reach: Relief['reach'],
  camera: Camera,
  region: Region,
  light: PointLight,
): void {
  if (light.airCandela === 0 || light.focus !== undefined) return;
  const { corner, across, down, eyeHeight } = camera;
  const [px, py, pz] = [light.place[0], light.place[1], light.place[2] - eyeHeight];
  const soft = light.radius * light.radius;
  const scale = light.airCandela / (4 * Math.PI);
  const stepU = 1 / region.fullWidth;
  const u0 = (region.left + 0.5) * stepU;
  for (let y = 0; y < region.height; y++) {
    const v = (region.top + y + 0.5) / region.fullHeight;
    const row = [0, 1, 2].map((c) => corner[c] + u0 * across[c] + v * down[c]);
    let i = y * region.width;
    for (let x = 0; x < region.width; x++, i++) {
      const rx = row[0] + x * stepU * across[0];
      const ry = row[1] + x * stepU * across[1];
      const rz = row[2] + x * stepU * across[2];
      const rayLength = Math.sqrt(rx * rx + ry * ry + rz * rz);
      const t0 = (px * rx + py * ry + pz * rz) / rayLength;
      const cx = py * rz - pz * ry;
      const cy = pz * rx - px * rz;
      const cz = px * ry - py * rx;
      const h = Math.sqrt((cx * cx + cy * cy + cz * cz) / (rayLength * rayLength) + soft);
      const T = reach[i] * rayLength;
      out[i] += (scale / h) * Math.atan2(T * h, h * h - t0 * (T - t0));
    }
  }
}
