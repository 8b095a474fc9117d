import { betweenPixels } from '../plane/between-pixels';
import type { Region } from '../plane/region';
import { plateFromFrame, type Frame } from './frame';

/**
 * Rows of a framed picture of floats, sampled bilinearly from a plane of a region of the plate's; beyond its edges it is clamped.
 *
 * @param source one float a pixel of `region`
 * @param size of the whole framed picture, pixels
 * @returns size.width * (rows.to - rows.from) floats
 */
export function framePlane(
  source: Float32Array,
  region: Region,
  frame: Frame,
  aspect: number,
  size: { width: number; height: number },
  rows: { from: number; to: number },
): Float32Array {
  const own = { width: region.width, height: region.height };
  // Pixel on pixel: nothing is sampled.
  if (frame.angle === 0 && own.width === size.width && own.height === rows.to - rows.from) return source;
  const out = new Float32Array(size.width * (rows.to - rows.from));
  const plane = { ...own, data: source };
  for (let y = rows.from, o = 0; y < rows.to; y++) {
    for (let x = 0; x < size.width; x++, o++) {
      const at = { u: (x + 0.5) / size.width, v: (y + 0.5) / size.height };
      const { u, v } = plateFromFrame(frame, aspect, at);
      const [px, py] = [u * region.fullWidth - region.left, v * region.fullHeight - region.top];
      out[o] = betweenPixels(plane, px - 0.5, py - 0.5);
    }
  }
  return out;
}
