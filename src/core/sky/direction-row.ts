import type { Camera } from '../geometry/camera';
import type { Region } from '../plane/region';

/** Unit vectors toward what is seen at the pixels of a row, world axes. */
export interface DirectionRow {
  x: Float64Array;
  y: Float64Array;
  z: Float64Array;
}

export const createDirectionRow = (width: number): DirectionRow => ({
  x: new Float64Array(width),
  y: new Float64Array(width),
  z: new Float64Array(width),
});

/** Fills a row with the directions of one row of a region. */
export function directionRow(
  out: DirectionRow,
  { corner, across, down }: Camera,
  { fullWidth, fullHeight, left, top, width }: Region,
  row: number,
): void {
  const v = (top + row + 0.5) / fullHeight;
  const [a, b, c] = [corner[0] + v * down[0], corner[1] + v * down[1], corner[2] + v * down[2]];
  const [da, db, dc] = across;
  for (let x = 0; x < width; x++) {
    const u = (left + x + 0.5) / fullWidth;
    const [rx, ry, rz] = [a + u * da, b + u * db, c + u * dc];
    const per = 1 / Math.sqrt(rx * rx + ry * ry + rz * rz);
    out.x[x] = rx * per;
    out.y[x] = ry * per;
    out.z[x] = rz * per;
  }
}
