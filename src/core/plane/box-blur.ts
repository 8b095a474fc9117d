/** Lines through a plane, rows or columns: how many, how far one begins behind another, and from place to place along one. */
interface Lines {
  count: number;
  apart: number;
  length: number;
  step: number;
}

/**
 * A running mean over a square of (2 * radius + 1) pixels, cut at the picture's edges (so a constant stays constant).
 * Prepared once for a size; `out` may be `source`.
 */
export function createBoxBlur(
  width: number,
  height: number,
  radius: number,
  scratch: Float32Array = new Float32Array(width * height),
) {
  const rows: Lines = { count: height, apart: width, length: width, step: 1 };
  const columns: Lines = { count: width, apart: 1, length: height, step: width };
  const [across, down] = [shares(width, radius), shares(height, radius)];
  return (out: Float32Array, source: Float32Array): void => {
    alongLines(scratch, source, rows, radius, across);
    alongLines(out, scratch, columns, radius, down);
  };
}

/**
 * The same once. A kernel stands in for it where a picture is at least 4 by 4.
 *
 * @param scratch a plane of the same size
 */
export const boxBlur = (
  out: Float32Array,
  source: Float32Array,
  scratch: Float32Array,
  width: number,
  height: number,
  radius: number,
): void => createBoxBlur(width, height, radius, scratch)(out, source);

/** One over the pixels of each window of a line. */
const shares = (length: number, radius: number): Float64Array =>
  Float64Array.from(
    { length },
    (_, i) => 1 / (Math.min(length - 1, i + radius) - Math.max(0, i - radius) + 1),
  );

/** Means along lines, four at a time: no sum waits for another. The last line is done again where there are no four. */
function alongLines(
  out: Float32Array,
  source: Float32Array,
  { count, apart, length, step }: Lines,
  radius: number,
  share: Float64Array,
): void {
  const [ahead, behind] = [radius * step, (radius + 1) * step];
  const entered = Math.min(radius, length);
  for (let line = 0; line < count; line += 4) {
    let i0 = line * apart;
    let i1 = Math.min(line + 1, count - 1) * apart;
    let i2 = Math.min(line + 2, count - 1) * apart;
    let i3 = Math.min(line + 3, count - 1) * apart;
    let s0 = 0;
    let s1 = 0;
    let s2 = 0;
    let s3 = 0;
    for (let at = 0, on = 0; at < entered; at++, on += step) {
      s0 += source[i0 + on];
      s1 += source[i1 + on];
      s2 += source[i2 + on];
      s3 += source[i3 + on];
    }
    for (let at = 0; at < length; at++, i0 += step, i1 += step, i2 += step, i3 += step) {
      if (at + radius < length) {
        s0 += source[i0 + ahead];
        s1 += source[i1 + ahead];
        s2 += source[i2 + ahead];
        s3 += source[i3 + ahead];
      }
      if (at > radius) {
        s0 -= source[i0 - behind];
        s1 -= source[i1 - behind];
        s2 -= source[i2 - behind];
        s3 -= source[i3 - behind];
      }
      const by = share[at];
      out[i0] = s0 * by;
      out[i1] = s1 * by;
      out[i2] = s2 * by;
      out[i3] = s3 * by;
    }
  }
}
