import type { Region } from '../plane/region';
import { plateFromFrame, type Frame } from './frame';

/** Weights of four neighbours for a place between the middle two: Catmull-Rom (Keys 1981, a = -0.5). */
function cubic(out: Float64Array, t: number): void {
  out[0] = t * (t * (1 - 0.5 * t) - 0.5);
  out[1] = t * t * (1.5 * t - 2.5) + 1;
  out[2] = t * (t * (2 - 1.5 * t) + 0.5);
  out[3] = t * t * (0.5 * t - 0.5);
}

/**
 * Rows of a framed picture, sampled bicubically from a region of the plate's. Codes are interleaved RGB of any depth; what
 * lies beyond the region's edges is clamped.
 *
 * @param out 3 * size.width * (rows.to - rows.from)
 * @param source 3 * region.width * region.height
 * @param size of the whole framed picture, pixels
 */
export function straightenRows<Codes extends Uint8Array | Uint16Array>(
  out: Codes,
  source: Codes,
  region: Region,
  frame: Frame,
  aspect: number,
  size: { width: number; height: number },
  rows: { from: number; to: number },
): void {
  const most = source.BYTES_PER_ELEMENT === 1 ? 255 : 65535;
  const [across, down] = [new Float64Array(4), new Float64Array(4)];
  const [atX, atY] = [new Int32Array(4), new Int32Array(4)];
  const clampTo = (at: number, last: number) => (at < 0 ? 0 : at > last ? last : at);
  let to = 0;
  for (let y = rows.from; y < rows.to; y++) {
    const q = (y + 0.5) / size.height;
    const start = plateFromFrame(frame, aspect, { u: 0.5 / size.width, v: q });
    const end = plateFromFrame(frame, aspect, { u: 1 + 0.5 / size.width, v: q });
    let px = start.u * region.fullWidth - region.left - 0.5;
    let py = start.v * region.fullHeight - region.top - 0.5;
    const stepX = ((end.u - start.u) * region.fullWidth) / size.width;
    const stepY = ((end.v - start.v) * region.fullHeight) / size.width;
    for (let x = 0; x < size.width; x++, px += stepX, py += stepY) {
      const x0 = Math.floor(px);
      const y0 = Math.floor(py);
      cubic(across, px - x0);
      cubic(down, py - y0);
      for (let k = 0; k < 4; k++) {
        atX[k] = 3 * clampTo(x0 + k - 1, region.width - 1);
        atY[k] = 3 * region.width * clampTo(y0 + k - 1, region.height - 1);
      }
      for (let c = 0; c < 3; c++, to++) {
        let sum = 0;
        for (let j = 0; j < 4; j++) {
          const row = atY[j] + c;
          sum +=
            down[j] *
            (across[0] * source[row + atX[0]] +
              across[1] * source[row + atX[1]] +
              across[2] * source[row + atX[2]] +
              across[3] * source[row + atX[3]]);
        }
        out[to] = sum <= 0 ? 0 : sum >= most ? most : sum + 0.5;
      }
    }
  }
}
