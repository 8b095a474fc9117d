import { rayThrough, type Camera } from '../geometry/camera';
import { wallAlong } from '../plan/wall-at';
import type { WallPiece } from '../plan/wall-pieces';
import { length } from '../geometry/vec3';
import type { Region } from '../plane/region';
import { RELIEF_PLANES, type Relief } from './relief-planes';

/**
 * What lies beyond the picture's edges: as much again on either side, half of it above, for walls, and twice of it below,
 * down to before the eye's feet. In cells so large that a picture has 16 by 12 of them.
 */
export const BEYOND: Region = { fullWidth: 16, fullHeight: 12, left: -16, top: -6, width: 48, height: 42 };

/** What is farther off is not looked at, metres: a cell near the horizon is a whole field. */
const FARTHEST = 60;

/**
 * The lie of the land beyond the picture's edges, by the ground plan alone: level ground, and walls where they go on there.
 * What lies within the picture is no land of it. All of it is dull.
 *
 * @param out one float a cell of BEYOND in every plane
 */
export function beyondPicture(out: Relief, camera: Camera, walls: readonly WallPiece[]): void {
  const { eyeHeight } = camera;
  for (const name of RELIEF_PLANES) out[name].fill(0);
  out.alpha.fill(1);
  for (let y = 0, i = 0; y < BEYOND.height; y++) {
    const v = (BEYOND.top + y + 0.5) / BEYOND.fullHeight;
    for (let x = 0; x < BEYOND.width; x++, i++) {
      const u = (BEYOND.left + x + 0.5) / BEYOND.fullWidth;
      if (u > 0 && u < 1 && v > 0 && v < 1) continue;
      const ray = rayThrough(camera, { u, v });
      // A wall that a ray meets over the ground is met before it.
      const met = wallAlong(walls, eyeHeight, ray);
      const reach = met?.reach ?? (ray[2] < 0 ? -eyeHeight / ray[2] : Infinity);
      const distance = reach * length(ray);
      if (!(distance < FARTHEST)) continue;
      out.reach[i] = reach;
      out.distance[i] = distance;
      out.normalX[i] = met?.piece.normalX ?? 0;
      out.normalY[i] = met?.piece.normalY ?? 0;
      out.normalZ[i] = met ? 0 : 1;
      out.land[i] = 1;
    }
  }
}
