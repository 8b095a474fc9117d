import type { Picture } from '@/segment/picture';
import type { Part } from './squares';

/** What of a source lies under a pixel, in pixels of the source. */
interface Span {
  from: number;
  to: number;
}

const spansOf = (side: number, from: number, to: number): Span[] =>
  Array.from({ length: side }, (_, k) => ({
    from: from + ((to - from) * k) / side,
    to: from + ((to - from) * (k + 1)) / side,
  }));

/** Calls back with each pixel that a span touches, and by how much of itself, in pixels. */
function eachUnder({ from, to }: Span, size: number, call: (at: number, weight: number) => void): void {
  for (let at = Math.floor(from); at < to; at++) {
    const weight = Math.min(at + 1, to) - Math.max(at, from);
    if (weight > 1e-6) call(Math.min(size - 1, Math.max(0, at)), weight);
  }
}

/** A part of a picture as a square of some pixels, area averages of its codes: interleaved, 0 to 255. */
export function squareOf({ width, height, rgb }: Picture, part: Part, side: number): Float32Array {
  const [columns, rows] = [
    spansOf(side, part.left * width, part.right * width),
    spansOf(side, part.top * height, part.bottom * height),
  ];
  const out = new Float32Array(3 * side * side);
  const row = new Float32Array(3 * width);
  rows.forEach((span, y) => {
    row.fill(0);
    eachUnder(span, height, (at, weight) => {
      for (let i = 0; i < row.length; i++) row[i] += weight * rgb[3 * at * width + i];
    });
    columns.forEach((under, x) => {
      const area = (span.to - span.from) * (under.to - under.from);
      eachUnder(under, width, (at, weight) => {
        for (let c = 0; c < 3; c++) out[3 * (y * side + x) + c] += (weight * row[3 * at + c]) / area;
      });
    });
  });
  return out;
}
