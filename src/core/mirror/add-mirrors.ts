import type { Camera } from '../geometry/camera';
import { OWN_SHEEN } from '../light/own-sheen';
import { bilinearRow } from '../plane/bilinear-row';
import type { RgbPlanes } from '../plane/plane';
import type { Region } from '../plane/region';
import type { Relief } from '../relief/relief-planes';
import { bilinearKnown, type KnownLight } from './bilinear-light';

/** What mirrors show on a copy of the plate, before their Fresnel. */
export interface MirrorImage extends KnownLight {
  weight: Float32Array;
  ripples: Float32Array;
}

/** The relief as far as mirrors ask for it. */
export type MirroringLand = Pick<Relief, 'sheen' | 'normalX' | 'normalY' | 'normalZ' | 'land'>;

/** Least of a mirror between pixels of the copy that shows anything. */
export const LEAST = 0.01;

/** Schlick's Fresnel (1994) of a mirror seen under a cosine. */
export function mirrorFresnel(facing: number): number {
  const away = 1 - Math.min(1, Math.max(0, facing));
  const square = away * away;
  return OWN_SHEEN.f0 + (1 - OWN_SHEEN.f0) * square * square * away;
}

/**
 * Adds what surfaces that shine mirror to the light of a region. Ripples of a surface shift what is seen in it.
 *
 * @param out light of the region, changed in place
 * @param strength how far they mirror, 0 to 1
 */
export function addMirrors(
  out: RgbPlanes,
  { sheen, normalX, normalY, normalZ, land }: MirroringLand,
  image: MirrorImage,
  { corner, across, down, focal, aspect }: Camera,
  region: Region,
  strength: number,
): void {
  const { width, height, weight, ripples } = image;
  const [weights, turns] = [new Float32Array(region.width), new Float32Array(region.width)];
  const light = new Float64Array(4);
  for (let y = 0, i = 0; y < region.height; y++) {
    const v = (region.top + y + 0.5) / region.fullHeight;
    bilinearRow(weights, { width, height, data: weight }, region, y);
    bilinearRow(turns, { width, height, data: ripples }, region, y);
    for (let x = 0; x < region.width; x++, i++) {
      if (sheen[i] === 0 || land[i] === 0 || weights[x] <= LEAST) continue;
      const u = (region.left + x + 0.5) / region.fullWidth;
      const rx = corner[0] + u * across[0] + v * down[0];
      const ry = corner[1] + u * across[1] + v * down[1];
      const rz = corner[2] + u * across[2] + v * down[2];
      const toward = rx * normalX[i] + ry * normalY[i] + rz * normalZ[i];
      if (toward >= 0) continue;
      const facing = -toward / Math.sqrt(rx * rx + ry * ry + rz * rz);
      const px = u * width - 0.5;
      const py = v * height - 0.5;
      light[3] = 0;
      if (turns[x] > 0 && normalZ[i] < 1) {
        // A tilt of the mirror turns what is seen in it by twice as much.
        const turn = (2 * focal * turns[x]) / weights[x];
        bilinearKnown(light, image, px - turn * normalX[i] * width, py + turn * normalY[i] * aspect * height);
      }
      if (light[3] < 0.5) bilinearKnown(light, image, px, py);
      const share = (strength * sheen[i] * land[i] * mirrorFresnel(facing)) / light[3];
      out.r[i] += share * light[0];
      out.g[i] += share * light[1];
      out.b[i] += share * light[2];
    }
  }
}
