import type { RgbPlanes } from '../plane/plane';
import type { KnownLight } from './bilinear-light';

/** A pyramid ends with a copy whose shorter side is no longer than this, pixels. */
const TOP = 4;

/** The sizes of a picture and of its ever smaller copies. */
function levelSizes(width: number, height: number): { width: number; height: number }[] {
  const sizes = [{ width, height }];
  for (let [w, h] = [width, height]; Math.min(w, h) > TOP; sizes.push({ width: w, height: h }))
    [w, h] = [Math.max(1, w >> 1), Math.max(1, h >> 1)];
  return sizes;
}

/** Floats of a pixel: red, green, blue, known. */
const FOUR = 4;

/** Floats that a pyramid over a picture takes. */
export const pyramidLength = (width: number, height: number): number =>
  levelSizes(width, height).reduce((sum, size) => sum + FOUR * size.width * size.height, 0);

/** The levels of a pyramid, the whole picture first; they are views of its floats. */
export function pyramidLevels(data: Float32Array, width: number, height: number): KnownLight[] {
  let from = 0;
  return levelSizes(width, height).map((size) => {
    const first = from;
    from += FOUR * size.width * size.height;
    return { ...size, data: data.subarray(first, from) };
  });
}

/** Fills a picture of half the size with means over two by two pixels. */
function halve(out: KnownLight, { width, height, data }: KnownLight): void {
  const right = width > 1 ? FOUR : 0;
  const below = height > 1 ? FOUR * width : 0;
  for (let y = 0, i = 0; y < out.height; y++) {
    for (let x = 0, k = 2 * FOUR * y * width; x < out.width; x++, k += FOUR) {
      for (let c = 0; c < FOUR; c++, i++, k++)
        out.data[i] = (data[k] + data[k + right] + data[k + below] + data[k + right + below]) / 4;
    }
  }
}

/**
 * A picture and ever smaller copies of it, each of half the size of the one before.
 *
 * @param levels as `pyramidLevels` lays them; they are filled, all of it known
 */
export function fillPyramid(levels: readonly KnownLight[], { r, g, b }: RgbPlanes): void {
  const [{ data }] = levels;
  for (let i = 0, k = 0; i < r.length; i++, k += FOUR) {
    data[k] = r[i];
    data[k + 1] = g[i];
    data[k + 2] = b[i];
    data[k + 3] = 1;
  }
  for (let k = 1; k < levels.length; k++) halve(levels[k], levels[k - 1]);
}
