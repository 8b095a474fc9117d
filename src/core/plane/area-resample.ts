/** For each output pixel: the first source pixel it covers, and the coverage weights, which add up to 1. */
interface Taps {
  first: Int32Array;
  weights: Float32Array[];
}

function taps(from: number, to: number): Taps {
  const step = from / to;
  const first = new Int32Array(to);
  const weights = Array.from({ length: to }, (_, i) => {
    const start = i * step;
    const end = Math.min(from, start + step);
    first[i] = Math.min(from - 1, Math.floor(start));
    const count = Math.max(1, Math.ceil(end) - first[i]);
    const row = new Float32Array(count);
    for (let k = 0; k < count; k++) {
      const low = Math.max(start, first[i] + k);
      const high = Math.min(end, first[i] + k + 1);
      row[k] = Math.max(0, high - low) / (end - start);
    }
    return row;
  });
  return { first, weights };
}

/** Gives one source row, as interleaved linear floats of `channels` a pixel. The row may be reused by the next call. */
export type RowSource = (row: number) => Float32Array;

/**
 * Shrinks a picture by area averaging, row by row, so that only a few rows are held at a time. Averages are exact:
 * the mean of the output is the mean of the source when sizes divide. Enlarging repeats pixels.
 *
 * `out` has toWidth * toHeight * channels floats, interleaved.
 */
export function areaResample(
  out: Float32Array,
  source: RowSource,
  from: { width: number; height: number },
  to: { width: number; height: number },
  channels: number,
): void {
  const across = taps(from.width, to.width);
  const down = taps(from.height, to.height);
  const narrow = new Float32Array(to.width * channels);
  let held = -1;
  const narrowRow = (y: number) => {
    if (y === held) return;
    const row = source(y);
    for (let x = 0; x < to.width; x++) {
      const weights = across.weights[x];
      for (let c = 0; c < channels; c++) {
        let sum = 0;
        let i = across.first[x] * channels + c;
        for (let k = 0; k < weights.length; k++, i += channels) sum += weights[k] * row[i];
        narrow[x * channels + c] = sum;
      }
    }
    held = y;
  };
  for (let y = 0; y < to.height; y++) {
    const target = out.subarray(y * narrow.length, (y + 1) * narrow.length).fill(0);
    down.weights[y].forEach((weight, k) => {
      if (weight === 0) return;
      narrowRow(down.first[y] + k);
      for (let i = 0; i < narrow.length; i++) target[i] += weight * narrow[i];
    });
  }
}
