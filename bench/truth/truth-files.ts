import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { gunzipSync } from 'node:zlib';
import { outlineRow } from '@/core/geometry/outline-row';
import { wholeRegion } from '@/core/plane/region';

/** Size of the truth of a plate, pixels. */
export const TRUTH = { width: 480, height: 320 } as const;

/** Where the path-traced pairs lie: a folder a plate, with its `truth` inside. */
export const TRUTH_ROOT = process.env.SUNDEW_TRUTH ?? '../shared/plates';

/** 16-bit little-endian halves as floats (IEEE 754: sign, 5 exponent and 10 mantissa bits). */
export function halfFloats(bytes: Uint8Array): Float32Array {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  return Float32Array.from({ length: bytes.byteLength / 2 }, (_, i) => {
    const bits = view.getUint16(2 * i, true);
    const [exponent, mantissa] = [(bits >> 10) & 31, bits & 1023];
    const size =
      exponent === 0
        ? mantissa * 2 ** -24
        : exponent === 31
          ? 65504
          : (1 + mantissa / 1024) * 2 ** (exponent - 15);
    return bits >> 15 ? -size : size;
  });
}

/** Bytes as they are kept: one a pixel. */
export const keptIds = async (file: string) => new Uint8Array(gunzipSync(await readFile(file)));

/** What stands at every pixel: 0 sky, 1 ground, 2 standing thing or person, 4 building, 5 vegetation, and so on. */
export const truthIds = (plate: string) => keptIds(join(TRUTH_ROOT, plate, 'truth', 'id.u8.gz'));

/** The pixels of one id within a loop that hang together with a place, as a coverage of 0 and 1. */
export function truthThing(
  ids: Uint8Array,
  id: number,
  at: { u: number; v: number },
  loop: readonly number[],
): Float32Array {
  const { width, height } = TRUTH;
  const out = new Float32Array(ids.length);
  const within = new Float32Array(ids.length);
  const points = loop.flatMap((u, i) => (i % 2 === 0 ? [{ u, v: loop[i + 1] }] : []));
  for (let y = 0; y < height; y++) {
    outlineRow(within.subarray(y * width, (y + 1) * width), points, wholeRegion(width, height), y);
  }
  const start = Math.floor(at.v * height) * width + Math.floor(at.u * width);
  const open = ids[start] === id ? [start] : [];
  while (open.length > 0) {
    const i = open.pop()!;
    if (out[i] === 1 || ids[i] !== id || within[i] < 0.5) continue;
    out[i] = 1;
    const x = i % width;
    if (x > 0) open.push(i - 1);
    if (x < width - 1) open.push(i + 1);
    if (i >= width) open.push(i - width);
    if (i < width * (height - 1)) open.push(i + width);
  }
  return out;
}

/** Intersection over union and mean absolute error of a coverage against the truth. */
export function compareCoverage(coverage: Float32Array, truth: Float32Array) {
  let [both, either, error] = [0, 0, 0];
  coverage.forEach((value, i) => {
    const [found, there] = [value > 0.5, truth[i] > 0.5];
    both += Number(found && there);
    either += Number(found || there);
    error += Math.abs(value - truth[i]);
  });
  return { iou: both / Math.max(1, either), error: error / coverage.length };
}
