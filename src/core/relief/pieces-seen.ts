import type { Camera } from '../geometry/camera';
import { wholeRegion } from '../plane/region';
import { meetUpright, type WallPiece } from '../plan/wall-pieces';
import { createReliefRow, sightRow } from './relief-row';
import type { Relief } from './relief-planes';

/** How near the relief a piece is met where the relief shows it, share of the way. */
const SAME = 1e-3;

/** How far beyond foot and top a pixel of a piece may lie, metres: numbers are round. */
const LOW = 0.01;

/**
 * Which piece of a wall each pixel of a whole plate shows: its number from 1 on, 0 where there is none, or where something stands before it.
 *
 * @param relief of the whole plate at that size
 */
export function piecesSeen(
  { width, height }: { width: number; height: number },
  { reach, land }: Pick<Relief, 'reach' | 'land'>,
  camera: Camera,
  pieces: readonly WallPiece[],
): Uint16Array {
  const seen = new Uint16Array(width * height);
  const row = createReliefRow(width);
  const region = wholeRegion(width, height);
  for (let y = 0, i = 0; y < height; y++) {
    sightRow(row, camera, region, y);
    for (let x = 0; x < width; x++, i++) {
      if (land[i] <= 0.5) continue;
      const [away, ahead] = [reach[i], row.ahead[x]];
      const high = camera.eyeHeight + away * row.rise[x];
      for (let k = 0; k < pieces.length && seen[i] === 0; k++) {
        const piece = pieces[k];
        if (high < -LOW || high > piece.height + LOW) continue;
        if (Math.abs(meetUpright(piece, row.aside[x], ahead) - away) < SAME * away) seen[i] = k + 1;
      }
    }
  }
  return seen;
}
