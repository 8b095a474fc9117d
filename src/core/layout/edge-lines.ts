import type { Plane } from '../plane/plane';

/**
 * How strongly the pixels of a plane lie on edges of one direction, upright or level, line by line: columns of upright
 * edges, rows of level ones. Prepared once, so that a stretch of a line is told at once.
 */
export interface EdgeLines {
  lines: number;
  /** Pixels of a line. */
  length: number;
  /** Contrast across the line's direction, codes: contrast[line * length + n]. */
  contrast: Float32Array;
  /** Share of a stretch that lies on an edge, or beside one, 0 to 1. */
  seen: (line: number, from: number, to: number) => number;
  /** Mean contrast of a stretch, codes. */
  strength: (line: number, from: number, to: number) => number;
}

/** Contrast of an edge that counts wholly: share of the strongest of all but a few, and codes at least. */
const STRONG = { share: 0.35, of: 0.97, least: 2.5 } as const;

/** What an edge counts for the lines beside it. */
const BESIDE = 0.8;

/** Sums along each line: sums[line * (length + 1) + n] of its first n pixels. */
function sumsAlong(value: (line: number, n: number) => number, lines: number, length: number): Float32Array {
  const sums = new Float32Array(lines * (length + 1));
  for (let line = 1; line < lines - 1; line++) {
    let sum = 0;
    for (let n = 0; n < length; n++) {
      sum += value(line, n);
      sums[line * (length + 1) + n + 1] = sum;
    }
  }
  return sums;
}

export function edgeLines({ data, width, height }: Plane, upright: boolean): EdgeLines {
  const [lines, length] = upright ? [width, height] : [height, width];
  const [step, next] = upright ? [1, width] : [width, 1];
  const contrast = new Float32Array(lines * length);
  for (let line = 1; line < lines - 1; line++) {
    for (let n = 0; n < length; n++) {
      const i = line * step + n * next;
      contrast[line * length + n] = Math.abs(data[i + step] - data[i - step]) / 2;
    }
  }
  const sorted = contrast.slice().sort();
  const strong = Math.max(STRONG.least, STRONG.share * sorted[Math.floor(STRONG.of * sorted.length)]);
  const at = (line: number, n: number) => contrast[line * length + n];
  const near = (line: number, n: number) =>
    Math.min(1, Math.max(at(line, n), BESIDE * at(line - 1, n), BESIDE * at(line + 1, n)) / strong);
  const mean = (sums: Float32Array) => (line: number, from: number, to: number) => {
    const [first, last] = [Math.max(0, from), Math.min(length, to)];
    if (last <= first) return 0;
    return (sums[line * (length + 1) + last] - sums[line * (length + 1) + first]) / (last - first);
  };
  return {
    ...{ lines, length, contrast },
    seen: mean(sumsAlong(near, lines, length)),
    strength: mean(sumsAlong(at, lines, length)),
  };
}
