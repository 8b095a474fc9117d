import type { FileHandle } from 'node:fs/promises';
import { promisify } from 'node:util';
import { deflate } from 'node:zlib';
import { writeHalves } from '@/core/output/half-floats';
import { writeWhole } from '../assets/asset-store';

/** As hard as the tools of the standard compress by themselves. */
const LEVEL = 4;

/** Blocks that are compressed at a time. */
const AT_ONCE = 6;

const deflated = promisify<Uint8Array, { level: number }, Buffer>(deflate);

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

/** The bytes of halves as OpenEXR compresses them: all lower bytes, then all upper ones, each by its difference to the one before. */
function predicted(halves: Uint16Array): Uint8Array {
  const count = halves.length;
  const out = new Uint8Array(2 * count);
  let [lower, upper] = [128, halves[count - 1] & 255];
  for (let i = 0; i < count; i++) {
    const [low, high] = [halves[i] & 255, halves[i] >> 8];
    out[i] = low - lower + 128;
    out[count + i] = high - upper + 128;
    [lower, upper] = [low, high];
  }
  return out;
}

/** A picture of many channels that is written from its top on. */
export interface ExrFile {
  /**
   * Takes the next rows: as many as a block has, or the last ones. `planes`: by channel, one float a pixel; `first`: the row of theirs that
   * the block begins with.
   */
  writeBlock: (planes: ReadonlyMap<string, Float32Array>, first: number) => Promise<void>;
  /** Settles when all is written, and where the blocks lie. */
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
  /** Blocks that are on their way, in their order. */
  const underway: Promise<void>[] = [];
  let written = Promise.resolve();

  /** Writes a block behind those before it, as soon as it is compressed. */
  async function put(index: number, halves: Uint16Array, before: Promise<void>): Promise<void> {
    const small = await deflated(predicted(halves), { level: LEVEL });
    await before;
    const data = small.byteLength < halves.byteLength ? small : Buffer.from(halves.buffer);
    table.writeBigUInt64LE(BigInt(at), 8 * index);
    const piece = Buffer.concat([int(index * BLOCK_ROWS, data.byteLength), data]);
    at += piece.byteLength;
    await writeWhole(file, piece);
  }

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
      written = put(block++, halves, written);
      // A fault is told when its turn comes.
      written.catch(() => {});
      underway.push(written);
      if (underway.length >= AT_ONCE) await underway.shift();
    },
    async finish() {
      await written;
      await file.write(table, 0, table.byteLength, head.byteLength);
    },
  };
}
