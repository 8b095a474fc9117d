import type { Camera } from '../geometry/camera';
import type { WallPiece } from '../plan/wall-pieces';
import { hypot } from '../plane/hypot';
import type { Region } from '../plane/region';
import { RELIEF_PLANES, type Relief } from './relief-planes';

/**
 * What lies beyond the picture's edges: as much again on either side, half of it above, for walls, and twice of it below,
 * down to before the eye's feet. In cells so large that a picture has 16 by 12 of them.
 */
export const BEYOND: Region = { fullWidth: 16, fullHeight: 12, left: -16, top: -6, width: 48, height: 42 };

/** What is farther off is not looked at, metres: a cell near the horizon is a whole field. */
const FARTHEST = 60;

/** A ray that sinks less than this never meets the ground. */
const LEVEL_RAY = 1e-3;

/** How far along a ray it meets a wall that faces it, in the ray's own lengths; Infinity where it does not. */
function toWall(piece: WallPiece, rx: number, ry: number, rz: number, eyeHeight: number): number {
  const { ax, ay, bx, by, base = 0, height, normalX, normalY } = piece;
  const along = normalX * rx + normalY * ry;
  if (along >= 0) return Infinity;
  const reach = (normalX * ax + normalY * ay) / along;
  if (reach <= 0) return Infinity;
  const [dx, dy] = [bx - ax, by - ay];
  const share = ((reach * rx - ax) * dx + (reach * ry - ay) * dy) / (dx * dx + dy * dy);
  const up = eyeHeight + reach * rz;
  return share >= 0 && share <= 1 && up >= base && up <= base + height ? reach : Infinity;
}

/**
 * The lie of the land beyond the picture's edges, by the ground plan alone: level ground, and walls where they go on there.
 * What lies within the picture is no land of it. All of it is dull.
 *
 * @param out one float a cell of BEYOND in every plane
 */
export function beyondPicture(out: Relief, camera: Camera, walls: readonly WallPiece[]): void {
  const { corner, across, down, eyeHeight } = camera;
  for (const name of RELIEF_PLANES) out[name].fill(0);
  out.alpha.fill(1);
  for (let y = 0, i = 0; y < BEYOND.height; y++) {
    const v = (BEYOND.top + y + 0.5) / BEYOND.fullHeight;
    for (let x = 0; x < BEYOND.width; x++, i++) {
      const u = (BEYOND.left + x + 0.5) / BEYOND.fullWidth;
      if (u > 0 && u < 1 && v > 0 && v < 1) continue;
      const rx = corner[0] + u * across[0] + v * down[0];
      const ry = corner[1] + u * across[1] + v * down[1];
      const rz = corner[2] + u * across[2] + v * down[2];
      let reach = rz < -LEVEL_RAY ? -eyeHeight / rz : Infinity;
      let met: WallPiece | undefined;
      for (const piece of walls) {
        const own = toWall(piece, rx, ry, rz, eyeHeight);
        if (own < reach) [reach, met] = [own, piece];
      }
      const distance = reach * hypot(rx, ry, rz);
      if (!(distance < FARTHEST)) continue;
      out.reach[i] = reach;
      out.distance[i] = distance;
      out.normalX[i] = met?.normalX ?? 0;
      out.normalY[i] = met?.normalY ?? 0;
      out.normalZ[i] = met ? 0 : 1;
      out.land[i] = 1;
    }
  }
}
