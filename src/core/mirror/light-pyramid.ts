import type { RgbPlanes } from '../plane/plane';

/** A pyramid ends with a copy whose shorter side is no longer than this, pixels. */
const TOP = 4;

/** The sizes of a picture and of its ever smaller copies. */
function levelSizes(width: number, height: number): { width: number; height: number }[] {
  const sizes = [{ width, height }];
  for (let [w, h] = [width, height]; Math.min(w, h) > TOP; sizes.push({ width: w, height: h }))
    [w, h] = [Math.max(1, w >> 1), Math.max(1, h >> 1)];
  return sizes;
}

/** Floats that a pyramid over a picture takes, each plane. */
export const pyramidLength = (width: number, height: number): number =>
  levelSizes(width, height).reduce((sum, size) => sum + size.width * size.height, 0);

/** The levels of a pyramid, the whole picture first; they are views of its planes. */
export function pyramidLevels(
  { r, g, b }: Pick<RgbPlanes, 'r' | 'g' | 'b'>,
  width: number,
  height: number,
): RgbPlanes[] {
  let from = 0;
  return levelSizes(width, height).map((size) => {
    const to = from + size.width * size.height;
    const [first, end] = [from, to];
    from = to;
    return { ...size, r: r.subarray(first, end), g: g.subarray(first, end), b: b.subarray(first, end) };
  });
}

/** Fills a plane of half the size with means over two by two pixels. */
function halve(out: Float32Array, wide: number, plane: Float32Array, width: number, height: number): void {
  const right = width > 1 ? 1 : 0;
  const below = height > 1 ? width : 0;
  for (let i = 0, y = 0; i < out.length; y++) {
    for (let x = 0, k = 2 * y * width; x < wide; x++, i++, k += 2)
      out[i] = (plane[k] + plane[k + right] + plane[k + below] + plane[k + right + below]) / 4;
  }
}

/**
 * A picture and ever smaller copies of it, each of half the size of the one before.
 *
 * @param levels as `pyramidLevels` lays them; they are filled
 */
export function fillPyramid(levels: readonly RgbPlanes[], light: RgbPlanes): void {
  for (const c of ['r', 'g', 'b'] as const) {
    levels[0][c].set(light[c]);
    for (let k = 1; k < levels.length; k++) {
      const { width, height } = levels[k - 1];
      halve(levels[k][c], levels[k].width, levels[k - 1][c], width, height);
    }
  }
}
