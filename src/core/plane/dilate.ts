/** Share of a regular octagon's radius that its diagonal sides take (Minkowski sum of a square and a diamond). */
const DIAGONAL = 1 - Math.SQRT1_2;

/**
 * Grey dilation, in place, by a regular octagon around each pixel, which comes near a disc: running maxima along rows,
 * columns and both diagonals (van Herk 1992), so that its cost does not depend on the radius. Between two whole radii the
 * results are blended. Prepared once for a size.
 */
export function createDilation(width: number, height: number) {
  const most = Math.max(width, height);
  const [line, rising, falling] = [0, 1, 2].map(() => new Float32Array(most));
  const larger = new Float32Array(width * height);

  /** Running maximum of a line of pixels over `radius` to both sides. */
  function along(data: Float32Array, first: number, stride: number, count: number, radius: number): void {
    const block = 2 * radius + 1;
    for (let i = 0, at = first; i < count; i++, at += stride) {
      line[i] = data[at];
      rising[i] = i % block === 0 ? line[i] : Math.max(rising[i - 1], line[i]);
    }
    for (let i = count - 1; i >= 0; i--) {
      const ends = i === count - 1 || (i + 1) % block === 0;
      falling[i] = ends ? line[i] : Math.max(falling[i + 1], line[i]);
    }
    for (let i = 0, at = first; i < count; i++, at += stride) {
      const [from, to] = [i - radius, Math.min(count - 1, i + radius)];
      // A window that an end cuts short lies within a block; what of the block is outside it must not count.
      if (from < 0) data[at] = rising[to];
      else if (from - (from % block) + block > to) data[at] = falling[from];
      else data[at] = Math.max(falling[from], rising[to]);
    }
  }

  function whole(data: Float32Array, radius: number): void {
    const slant = Math.max(0, Math.min(Math.round(DIAGONAL * radius), (radius - 1) >> 1));
    const straight = radius - 2 * slant;
    for (let y = 0; y < height && straight > 0; y++) along(data, y * width, 1, width, straight);
    for (let x = 0; x < width && straight > 0; x++) along(data, x, width, height, straight);
    if (slant === 0) return;
    for (let k = 1 - height; k < width; k++) {
      const [x, y] = [Math.max(0, k), Math.max(0, -k)];
      const count = Math.min(width - x, height - y);
      along(data, y * width + x, width + 1, count, slant);
      along(data, y * width + width - 1 - x, width - 1, count, slant);
    }
  }

  return (data: Float32Array, radius: number): void => {
    const lower = Math.floor(radius);
    const share = radius - lower;
    if (share > 0) {
      larger.set(data);
      whole(larger, lower + 1);
    }
    if (lower > 0) whole(data, lower);
    if (share > 0) for (let i = 0; i < data.length; i++) data[i] += share * (larger[i] - data[i]);
  };
}
