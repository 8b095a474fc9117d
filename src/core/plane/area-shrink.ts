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

/** A picture as interleaved RGB codes, and the light that each code of each channel stands for. */
export interface CodedPicture {
  width: number;
  height: number;
  codes: Uint8Array | Uint16Array;
  curves: readonly [Float32Array, Float32Array, Float32Array];
}

/**
 * Shrinks a picture of codes by area averaging in linear light, some rows of the output at a time. Averages are exact: the
 * mean of the output is the mean of the source's light when sizes divide. Enlarging repeats pixels.
 *
 * `out` has 3 * to.width * to.height linear floats, interleaved; returns what fills rows of it.
 */
export function createAreaShrink(
  out: Float32Array,
  { width, height, codes, curves }: CodedPicture,
  to: { width: number; height: number },
): (rows: { from: number; to: number }) => void {
  const across = taps(width, to.width);
  const down = taps(height, to.height);
  const narrow = new Float32Array(3 * to.width);
  const [red, green, blue] = curves;
  let held = -1;

  function narrowRow(row: number): void {
    const { first, begin, weights } = across;
    const start = 3 * width * row;
    for (let x = 0, at = 0; x < to.width; x++, at += 3) {
      let r = 0;
      let g = 0;
      let b = 0;
      let i = start + 3 * first[x];
      for (let k = begin[x], end = begin[x + 1]; k < end; k++, i += 3) {
        const weight = weights[k];
        r += weight * red[codes[i]];
        g += weight * green[codes[i + 1]];
        b += weight * blue[codes[i + 2]];
      }
      narrow[at] = r;
      narrow[at + 1] = g;
      narrow[at + 2] = b;
    }
    held = row;
  }

  return (rows) => {
    for (let y = rows.from; y < rows.to; y++) {
      const target = out.subarray(y * narrow.length, (y + 1) * narrow.length).fill(0);
      for (let k = down.begin[y]; k < down.begin[y + 1]; k++) {
        const weight = down.weights[k];
        const row = down.first[y] + k - down.begin[y];
        if (weight === 0) continue;
        if (row !== held) narrowRow(row);
        for (let i = 0; i < narrow.length; i++) target[i] += weight * narrow[i];
      }
    }
  };
}
