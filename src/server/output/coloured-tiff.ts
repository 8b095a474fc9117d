import { Buffer } from 'node:buffer';
import type { Size } from '@/engine/sizes';

/** Rows of a strip: as a decoder takes them. */
const STRIP_ROWS = 16;

/** Types of a tag's values, TIFF 6.0: bytes of no meaning, 16 and 32 bits. */
const [UNDEFINED, SHORT, LONG] = [7, 3, 4];

/** Bytes of the header, and of a tag in a directory. */
const HEADER = 8;
const TAG = 12;

type Tag = [id: number, type: number, count: number, value: number];

/**
 * A picture of 16 bits with its profile as the plainest TIFF there is (TIFF 6.0, ICC.1:2001-04 annex B): for what takes a profile from a
 * file only, and then leaves its codes alone. Of less than 4 GiB.
 *
 * @param codes 3 * width * height, interleaved RGB
 */
export function colouredTiff(codes: Uint16Array, { width, height }: Size, icc: Uint8Array): Buffer {
  const strips = Math.ceil(height / STRIP_ROWS);
  const rowBytes = 6 * width;
  const tags = 11;
  const bitsAt = HEADER + 2 + TAG * tags + 4;
  const offsetsAt = bitsAt + 8;
  const countsAt = offsetsAt + 4 * strips;
  const iccAt = countsAt + 4 * strips;
  const dataAt = (iccAt + icc.byteLength + 15) & ~15;
  const out = Buffer.alloc(dataAt + rowBytes * height);
  out.write('II', 0, 'latin1');
  out.writeUInt16LE(42, 2);
  out.writeUInt32LE(HEADER, 4);
  // One value of a list stands in its tag itself.
  const list = (at: number, of: (strip: number) => number) => (strips === 1 ? of(0) : at);
  const offsetOf = (strip: number) => dataAt + strip * STRIP_ROWS * rowBytes;
  const bytesOf = (strip: number) => rowBytes * Math.min(STRIP_ROWS, height - strip * STRIP_ROWS);
  writeTags(out, [
    [256, LONG, 1, width],
    [257, LONG, 1, height],
    [258, SHORT, 3, bitsAt],
    [259, SHORT, 1, 1],
    [262, SHORT, 1, 2],
    [273, LONG, strips, list(offsetsAt, offsetOf)],
    [277, SHORT, 1, 3],
    [278, LONG, 1, STRIP_ROWS],
    [279, LONG, strips, list(countsAt, bytesOf)],
    [284, SHORT, 1, 1],
    [34675, UNDEFINED, icc.byteLength, iccAt],
  ]);
  for (let c = 0; c < 3; c++) out.writeUInt16LE(16, bitsAt + 2 * c);
  for (let strip = 0; strip < strips; strip++) {
    out.writeUInt32LE(offsetOf(strip), offsetsAt + 4 * strip);
    out.writeUInt32LE(bytesOf(strip), countsAt + 4 * strip);
  }
  out.set(icc, iccAt);
  out.set(new Uint8Array(codes.buffer, codes.byteOffset, codes.byteLength), dataAt);
  return out;
}

function writeTags(out: Buffer, tags: readonly Tag[]): void {
  out.writeUInt16LE(tags.length, HEADER);
  tags.forEach(([id, type, count, value], k) => {
    const at = HEADER + 2 + TAG * k;
    out.writeUInt16LE(id, at);
    out.writeUInt16LE(type, at + 2);
    out.writeUInt32LE(count, at + 4);
    out.writeUInt32LE(value, at + 8);
  });
}
