import type { FileHandle } from 'node:fs/promises';
import { promisify } from 'node:util';
import { deflate } from 'node:zlib';
import { writeHalves } from '@/core/output/half-floats';
import { writeWhole } from '../assets/asset-store';

const shrink = promisify(deflate);

/** Rows that are compressed together: OpenEXR's ZIP. */
export const BLOCK_ROWS = 16;

const MAGIC = 20000630;
const ZIP = 3;
const HALF = 1;

/** Longest name of a channel without a flag that older readers do not know. */
export const LONGEST_NAME = 31;

const text = (value: string) => Buffer.from(`${value}\0`, 'latin1');
const int = (...values: number[]) => Buffer.from(Int32Array.from(values).buffer);
const float = (...values: number[]) => Buffer.from(Float32Array.from(values).buffer);
const attribute = (name: string, type: string, value: Buffer) =>
  Buffer.concat([text(name), text(type), int(value.byteLength), value]);

function header(channels: readonly string[], width: number, height: number): Buffer {
  const list = channels.map((name) => Buffer.concat([text(name), int(HALF, 0, 1, 1)]));
  const window = int(0, 0, width - 1, height - 1);
  return Buffer.concat([
    int(MAGIC, 2),
    attribute('channels', 'chlist', Buffer.concat([...list, Buffer.from([0])])),
    attribute('compression', 'compression', Buffer.from([ZIP])),
    attribute('dataWindow', 'box2i', window),
    attribute('displayWindow', 'box2i', window),
    attribute('lineOrder', 'lineOrder', Buffer.from([0])),
    attribute('pixelAspectRatio', 'float', float(1)),
    attribute('screenWindowCenter', 'v2f', float(0, 0)),
    attribute('screenWindowWidth', 'float', float(1)),
    Buffer.from([0]),
  ]);
}

/** Halves of bytes apart, then each byte by its difference: what OpenEXR compresses. */
function predicted(raw: Uint8Array): Uint8Array {
  const out = new Uint8Array(raw.length);
  const half = (raw.length + 1) >> 1;
  for (let i = 0; i < raw.length; i++) out[(i >> 1) + (i & 1) * half] = raw[i];
  for (let i = raw.length - 1, before; i > 0; i--) {
    before = out[i - 1];
    out[i] = out[i] - before + 128;
  }
  return out;
}

/** A picture of many channels that is written from its top on. */
export interface ExrFile {
  /**
   * Writes the next rows: as many as a block has, or the last ones. `planes`: by channel, one float a pixel; `first`: the row of theirs that
   * the block begins with.
   */
  writeBlock: (planes: ReadonlyMap<string, Float32Array>, first: number) => Promise<void>;
  /** Writes where the blocks lie. */
  finish: () => Promise<void>;
}

/**
 * An OpenEXR file of half floats, in scan lines, ZIP (OpenEXR file layout, version 2).
 *
 * @param channels names such as `R` or `quay.R`, at most LONGEST_NAME long, each once
 */
export async function createExr(
  file: FileHandle,
  channels: readonly string[],
  width: number,
  height: number,
): Promise<ExrFile> {
  // Readers want them in the order of their bytes.
  const names = [...channels].sort((a, b) => (a < b ? -1 : 1));
  const blocks = Math.ceil(height / BLOCK_ROWS);
  const head = header(names, width, height);
  const table = Buffer.alloc(8 * blocks);
  await writeWhole(file, Buffer.concat([head, table]));
  let [block, at] = [0, head.byteLength + table.byteLength];
  return {
    async writeBlock(planes, first) {
      const rows = Math.min(BLOCK_ROWS, height - block * BLOCK_ROWS);
      const halves = new Uint16Array(rows * names.length * width);
      let to = 0;
      for (let y = 0; y < rows; y++)
        for (const name of names) {
          writeHalves(halves, to, planes.get(name)!, (first + y) * width, width);
          to += width;
        }
      const raw = new Uint8Array(halves.buffer);
      const small = await shrink(predicted(raw));
      const data = small.byteLength < raw.byteLength ? small : Buffer.from(raw);
      table.writeBigUInt64LE(BigInt(at), 8 * block);
      const piece = Buffer.concat([int(block * BLOCK_ROWS, data.byteLength), data]);
      await writeWhole(file, piece);
      at += piece.byteLength;
      block++;
    },
    async finish() {
      await file.write(table, 0, table.byteLength, head.byteLength);
    },
  };
}
