import { bilinearRow } from './bilinear-row';
import { wholeRegion, type Region } from './region';

/** One size of a pyramid: how surely each value is known, 0 to 1, and room for values. */
interface Level {
  region: Region;
  weight: Float32Array;
  value: Float32Array;
}

const levelOf = (width: number, height: number, weight: Float32Array): Level => ({
  region: wholeRegion(width, height),
  weight,
  value: new Float32Array(width * height),
});

/** Sums of two by two pixels of a plane, in a plane of half the size. */
function quartered(out: Float32Array, plane: Float32Array, { width, height }: Region): void {
  const half = (width + 1) >> 1;
  out.fill(0);
  for (let y = 0, i = 0; y < height; y++) {
    const row = (y >> 1) * half;
    for (let x = 0; x < width; x++, i++) out[row + (x >> 1)] += plane[i];
  }
}

/**
 * Prepares what fills planes smoothly where they are not known from where they are: pulled up a pyramid, pushed down again (Gortler,
 * Grzeszczuk, Szeliski and Cohen 1996). What is known stays. Where nothing is known it is 0.
 *
 * @param weight how surely each value is known, 0 to 1
 */
export function createFiller(
  weight: Float32Array,
  width: number,
  height: number,
): (plane: Float32Array) => void {
  const levels = [levelOf(width, height, weight)];
  // What each value is a mean of, all weights together.
  const all = [weight];
  for (let w = width, h = height; w > 1 || h > 1;) {
    const { region, weight: own } = levels[levels.length - 1];
    [w, h] = [(w + 1) >> 1, (h + 1) >> 1];
    const sums = new Float32Array(w * h);
    quartered(sums, own, region);
    levels.push(
      levelOf(
        w,
        h,
        sums.map((share) => Math.min(1, share)),
      ),
    );
    all.push(sums);
  }
  const row = new Float32Array(width);
  const weighted = new Float32Array(width * height);

  /** Values of a level from those of the one below: their means by weight. */
  function pull(k: number): void {
    const [{ region, weight: own, value }, into] = [levels[k - 1], levels[k].value];
    const product = weighted.subarray(0, value.length);
    for (let i = 0; i < value.length; i++) product[i] = own[i] * value[i];
    quartered(into, product, region);
    for (let i = 0; i < into.length; i++) into[i] = all[k][i] > 0 ? into[i] / all[k][i] : 0;
  }

  function push({ region, weight: own, value }: Level, from: Level): void {
    const { width: wide, height: high } = from.region;
    const part = row.subarray(0, region.width);
    for (let y = 0, i = 0; y < region.height; y++) {
      bilinearRow(part, { width: wide, height: high, data: from.value }, region, y);
      for (let x = 0; x < region.width; x++, i++) value[i] = part[x] + own[i] * (value[i] - part[x]);
    }
  }

  return (plane) => {
    levels[0].value = plane;
    for (let k = 1; k < levels.length; k++) pull(k);
    for (let k = levels.length - 1; k > 0; k--) push(levels[k - 1], levels[k]);
  };
}
