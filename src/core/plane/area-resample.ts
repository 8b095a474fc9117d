/** For each output pixel: the first source pixel it covers, where its weights begin, and the weights, which add up to 1. */
interface Taps {
  first: Int32Array;
  begin: Int32Array;
  weights: Float32Array;
}

function taps(from: number, to: number): Taps {
  const step = from / to;
  const first = new Int32Array(to);
  const begin = new Int32Array(to + 1);
  const weights = new Float32Array(to * (Math.ceil(step) + 1));
  for (let i = 0; i < to; i++) {
    const start = i * step;
    const end = Math.min(from, start + step);
    first[i] = Math.min(from - 1, Math.floor(start));
    const last = Math.min(from - 1, Math.max(first[i], Math.ceil(end) - 1));
    let at = begin[i];
    for (let k = first[i]; k <= last; k++) {
      weights[at++] = Math.max(0, Math.min(end, k + 1) - Math.max(start, k)) / (end - start);
    }
    begin[i + 1] = at;
  }
  return { first, begin, weights };
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
  for (let y = 0; y < to.height; y++) {
    const target = out.subarray(y * narrow.length, (y + 1) * narrow.length).fill(0);
    for (let k = down.begin[y]; k < down.begin[y + 1]; k++) {
      const weight = down.weights[k];
      const row = down.first[y] + k - down.begin[y];
      if (weight === 0) continue;
      if (row !== held) narrowRow(narrow, source(row), across, channels);
      held = row;
      for (let i = 0; i < narrow.length; i++) target[i] += weight * narrow[i];
    }
  }
}

function narrowRow(
  out: Float32Array,
  row: Float32Array,
  { first, begin, weights }: Taps,
  channels: number,
): void {
  const width = first.length;
  for (let x = 0; x < width; x++) {
    for (let c = 0; c < channels; c++) {
      let sum = 0;
      let i = first[x] * channels + c;
      for (let k = begin[x]; k < begin[x + 1]; k++, i += channels) sum += weights[k] * row[i];
      out[x * channels + c] = sum;
    }
  }
}
