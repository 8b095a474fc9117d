import type { SrgbEncoder } from '@/core/color/srgb-codes';
import type { CreateRowShrink } from '@/core/plane/area-shrink';

/** Loops over the codes of pictures. */
export interface CodeLoops {
  /** As `createRowShrink` of the core. */
  createRows: CreateRowShrink;
  encode: SrgbEncoder;
  /** Spreads codes of 8 bits over 16. */
  widen: (out: Uint16Array, codes: Uint8Array) => void;
}

/** What `kernels/codes.ts` exports. */
interface CodeExports {
  lightOfBytes: (...args: number[]) => void;
  lightOfWords: (...args: number[]) => void;
  addShare: (...args: number[]) => void;
  narrowRow: (...args: number[]) => void;
  encodeLight: (...args: number[]) => void;
  widenCodes: (...args: number[]) => void;
}

const PAGE = 65536;

/** Codes that are turned at a time, in whole sixteens. */
const CHUNK = 12_288;

/** Binds the loops to a memory of their own, of at least so many bytes that are handed out one after the other. */
function bind(module: WebAssembly.Module, bytes: number) {
  const pages = 1 + Math.ceil(bytes / PAGE);
  const memory = new WebAssembly.Memory({ initial: pages, maximum: pages, shared: true });
  const env = { memory, abort: () => {} };
  const exports = new WebAssembly.Instance(module, { env }).exports as unknown as CodeExports;
  let next = PAGE;
  /** Room for some numbers and a four more, on a boundary of its own. */
  const take = (length: number, size: number) => {
    const at = next;
    next += 16 * Math.ceil((size * length) / 16 + 1);
    return at;
  };
  const floats = (length: number) => new Float32Array(memory.buffer, take(length, 4), length);
  const ints = (length: number) => new Int32Array(memory.buffer, take(length, 4), length);
  const bytesOf = (length: number) => new Uint8Array(memory.buffer, take(length, 1), length);
  return { memory, exports, floats, ints, bytesOf };
}

/** Binds loops over codes to compiled kernels. They are for one thread, and do a call at a time. */
export function createCodeLoops(module: WebAssembly.Module): CodeLoops {
  const { memory, exports, floats, bytesOf } = bind(module, 8 * CHUNK);
  const light = floats(CHUNK);
  const room = bytesOf(2 * CHUNK);
  const words = new Uint16Array(memory.buffer, room.byteOffset, CHUNK);
  const bytes = new Uint8Array(memory.buffer, light.byteOffset, CHUNK);
  return {
    createRows: (picture, across) => rowShrink(module, picture, across),
    encode(out, linear) {
      for (let from = 0; from < out.length; from += CHUNK) {
        const part = linear.subarray(from, from + CHUNK);
        light.set(part);
        exports.encodeLight(words.byteOffset, light.byteOffset, part.length);
        out.set(words.subarray(0, part.length), from);
      }
    },
    widen(out, codes) {
      for (let from = 0; from < out.length; from += CHUNK) {
        const part = codes.subarray(from, from + CHUNK);
        bytes.set(part);
        exports.widenCodes(words.byteOffset, bytes.byteOffset, part.length);
        out.set(words.subarray(0, part.length), from);
      }
    },
  };
}

/** Rows of a smaller picture, in a memory of their own: several pictures may be shrunk at once. */
function rowShrink(
  module: WebAssembly.Module,
  ...[{ width, codes, curves }, { first, begin, weights }]: Parameters<CreateRowShrink>
): ReturnType<CreateRowShrink> {
  const [row, narrow] = [3 * width, 3 * first.length];
  const tables = curves[0].length * 3 + first.length + begin.length + weights.length;
  const { exports, floats, ints, bytesOf } = bind(module, 4 * (tables + 3 * row + narrow) + 1024);
  const place = (data: Float32Array | Int32Array) => {
    const room = data instanceof Float32Array ? floats(data.length) : ints(data.length);
    room.set(data);
    return room.byteOffset;
  };
  const [red, green, blue] = curves.map(place);
  const [firsts, begins, shares] = [first, begin, weights].map(place);
  const [light, sums, made] = [row, row, narrow].map(floats);
  const size = codes.BYTES_PER_ELEMENT;
  const own = bytesOf(row * size);
  const source = new Uint8Array(codes.buffer, codes.byteOffset, codes.byteLength);
  const toLight = size === 1 ? exports.lightOfBytes : exports.lightOfWords;
  let held = -1;
  return {
    clear: () => void sums.fill(0),
    add(y, share) {
      // The last row that one pixel of the output covers is often the first of the next.
      if (y !== held) {
        own.set(source.subarray(y * own.length, (y + 1) * own.length));
        toLight(light.byteOffset, own.byteOffset, red, green, blue, width);
        held = y;
      }
      exports.addShare(sums.byteOffset, light.byteOffset, share, row);
    },
    narrow(out) {
      exports.narrowRow(made.byteOffset, sums.byteOffset, firsts, begins, shares, first.length);
      out.set(made);
    },
  };
}
