import { clamp } from '../plane/clamp';
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
  for (let y = rows.from, o = 0; y < rows.to; y++) {
    for (let x = 0; x < size.width; x++, o++) {
      const at = { u: (x + 0.5) / size.width, v: (y + 0.5) / size.height };
      const { u, v } = plateFromFrame(frame, aspect, at);
      const px = clamp(u * region.fullWidth - region.left - 0.5, 0, region.width - 1);
      const py = clamp(v * region.fullHeight - region.top - 0.5, 0, region.height - 1);
      const [x0, y0] = [Math.floor(px), Math.floor(py)];
      const [x1, y1] = [Math.min(region.width - 1, x0 + 1), Math.min(region.height - 1, y0 + 1)];
      const [tx, ty] = [px - x0, py - y0];
      const row = (from: number) =>
        source[from * region.width + x0] * (1 - tx) + source[from * region.width + x1] * tx;
      out[o] = row(y0) * (1 - ty) + row(y1) * ty;
    }
  }
  return out;
}
