/** For each output pixel: the first source pixel it covers, where its weights begin, and the weights, which add up to 1. */
export interface Taps {
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

/** A row of a smaller picture in the making: rows of the source are added to it, then it is narrowed. */
export interface RowShrink {
  clear: () => void;
  /** Adds a share of the light of a row of the source. */
  add: (row: number, share: number) => void;
  /** Averages what was added along the row: `out` has three floats a pixel. */
  narrow: (out: Float32Array) => void;
}

/** Prepares what makes rows of a smaller picture; `across`: what each of their pixels covers. */
export type CreateRowShrink = (picture: CodedPicture, across: Taps) => RowShrink;

/** @see CreateRowShrink */
export const createRowShrink: CreateRowShrink = ({ width, codes, curves }, { first, begin, weights }) => {
  const sums = new Float32Array(3 * width);
  return {
    clear: () => void sums.fill(0),
    add(row, share) {
      const start = 3 * width * row;
      for (let i = 0; i < sums.length; i++) sums[i] += share * curves[i % 3][codes[start + i]];
    },
    narrow(out) {
      for (let i = 0; i < out.length; i++) {
        const x = Math.floor(i / 3);
        let sum = 0;
        for (let k = begin[x]; k < begin[x + 1]; k++)
          sum += weights[k] * sums[3 * (first[x] + k - begin[x]) + (i % 3)];
        out[i] = sum;
      }
    },
  };
};

/**
 * Shrinks a picture of codes by area averaging in linear light, some rows of the output at a time. Averages are exact: the
 * mean of the output is the mean of the source's light when sizes divide. Enlarging repeats pixels.
 *
 * `out` has 3 * to.width * to.height linear floats, interleaved; returns what fills rows of it.
 */
export function createAreaShrink(
  out: Float32Array,
  picture: CodedPicture,
  to: { width: number; height: number },
  createRows: CreateRowShrink = createRowShrink,
): (rows: { from: number; to: number }) => void {
  const { first, begin, weights } = taps(picture.height, to.height);
  const made = createRows(picture, taps(picture.width, to.width));
  const length = 3 * to.width;
  return (rows) => {
    for (let y = rows.from; y < rows.to; y++) {
      made.clear();
      for (let k = begin[y]; k < begin[y + 1]; k++)
        if (weights[k] > 0) made.add(first[y] + k - begin[y], weights[k]);
      made.narrow(out.subarray(y * length, (y + 1) * length));
    }
  };
}
