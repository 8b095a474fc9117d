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

/**
 * Contrast of an edge that counts wholly: share of the strongest of all but a few, and codes at least. What the grain of brick or roughcast has
 * anyway counts nothing, up to a share of that.
 */
const STRONG = { share: 0.35, of: 0.97, least: 2.5, grain: 0.7 } as const;

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
  const steps = new Float32Array(length);
  for (let line = 1; line < lines - 1; line++) {
    for (let n = 0; n < length; n++) {
      const i = line * step + n * next;
      steps[n] = (data[i + step] - data[i - step]) / 2;
    }
    // An edge goes on along its line with one sign; grain does not.
    for (let n = 0; n < length; n++) {
      const [before, after] = [steps[Math.max(0, n - 1)], steps[Math.min(length - 1, n + 1)]];
      contrast[line * length + n] = Math.abs(before + steps[n] + after) / 3;
    }
  }
  const sorted = contrast.slice().sort();
  const strong = Math.max(STRONG.least, STRONG.share * sorted[Math.floor(STRONG.of * sorted.length)]);
  const grain = Math.min(STRONG.grain * strong, sorted[Math.floor(sorted.length / 2)]);
  const at = (line: number, n: number) => contrast[line * length + n];
  const near = (line: number, n: number) => {
    const most = Math.max(at(line, n), BESIDE * at(line - 1, n), BESIDE * at(line + 1, n));
    return Math.max(0, Math.min(1, (most - grain) / (strong - grain)));
  };
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
