/** A picture of which only a part is known, interleaved: its light, and 1 where it is known, all 0 elsewhere. */
export interface KnownLight {
  width: number;
  height: number;
  /** Four floats a pixel: red, green, blue, known. */
  data: Float32Array;
}

/**
 * Light between the pixels of such a picture, times how far it is known, and that; places outside repeat its edge.
 *
 * @param out four floats
 * @param x in pixels; 0 is the middle of the first
 */
export function bilinearKnown(
  out: Float64Array,
  { width, height, data }: KnownLight,
  x: number,
  y: number,
): void {
  const px = x < 0 ? 0 : x > width - 1 ? width - 1 : x;
  const py = y < 0 ? 0 : y > height - 1 ? height - 1 : y;
  const left = Math.floor(px);
  const top = Math.floor(py);
  const s = px - left;
  const t = py - top;
  const i = 4 * (top * width + left);
  const right = left + 1 < width ? 4 : 0;
  const j = i + (top + 1 < height ? 4 * width : 0);
  const a00 = (1 - s) * (1 - t);
  const a10 = s * (1 - t);
  const a01 = (1 - s) * t;
  const a11 = s * t;
  out[0] = a00 * data[i] + a10 * data[i + right] + a01 * data[j] + a11 * data[j + right];
  out[1] = a00 * data[i + 1] + a10 * data[i + right + 1] + a01 * data[j + 1] + a11 * data[j + right + 1];
  out[2] = a00 * data[i + 2] + a10 * data[i + right + 2] + a01 * data[j + 2] + a11 * data[j + right + 2];
  out[3] = a00 * data[i + 3] + a10 * data[i + right + 3] + a01 * data[j + 3] + a11 * data[j + right + 3];
}
