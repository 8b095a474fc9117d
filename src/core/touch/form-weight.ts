import type { Camera } from '../geometry/camera';
import type { Vec3 } from '../geometry/vec3';
import type { Region } from '../plane/region';
import type { Relief } from '../relief/relief-planes';
import { hypot } from '../plane/hypot';

/**
 * Weakens a touch on surfaces by their form: each pixel is multiplied by the cosine at which its surface sees a place, none where
 * it turns away. Of an upright surface whose turn is not known it is the mean over all turns that face the eye, as for lamps.
 *
 * `out` and the relief's planes have one float a pixel of `region`. `place`: world axes, metres.
 */
export function weighByForm(
  out: Float32Array,
  relief: Pick<Relief, 'reach' | 'normalX' | 'normalY' | 'normalZ' | 'unknownFacing'>,
  { corner, across, down, eyeHeight }: Camera,
  region: Region,
  place: Vec3,
): void {
  const { reach, normalX, normalY, normalZ, unknownFacing } = relief;
  for (let y = 0, i = 0; y < region.height; y++) {
    const v = (region.top + y + 0.5) / region.fullHeight;
    for (let x = 0; x < region.width; x++, i++) {
      if (out[i] === 0) continue;
      const u = (region.left + x + 0.5) / region.fullWidth;
      const far = reach[i];
      const lx = place[0] - (corner[0] + u * across[0] + v * down[0]) * far;
      const ly = place[1] - (corner[1] + u * across[1] + v * down[1]) * far;
      const lz = place[2] - eyeHeight - (corner[2] + u * across[2] + v * down[2]) * far;
      const facing = lx * normalX[i] + ly * normalY[i] + lz * normalZ[i];
      const turned = (hypot(lx, ly) + facing) / Math.PI;
      const all = Math.max(0, facing) * (1 - unknownFacing[i]) + Math.max(0, turned) * unknownFacing[i];
      out[i] *= all / Math.max(1e-6, hypot(lx, ly, lz));
    }
  }
}
