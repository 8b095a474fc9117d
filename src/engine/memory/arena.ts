/** A piece of the arena. */
export interface Block {
  /** Byte offset, a multiple of ALIGNMENT. */
  offset: number;
  bytes: number;
}

/** The arena holds no more. */
export class ArenaFullError extends Error {
  override name = 'ArenaFullError';
  /** What of the picture was being made. */
  part?: string;
}

const ALIGNMENT = 64;
const PAGE = 65536;

/** One shared memory that every worker sees, handed out in blocks. */
export interface Arena {
  memory: WebAssembly.Memory;
  /** A zeroed or reused block of at least `bytes`. Throws ArenaFullError. */
  allocate: (bytes: number) => Block;
  release: (block: Block) => void;
  /** Bytes handed out at this moment. */
  used: () => number;
}

/**
 * An arena over a shared WebAssembly memory, so that TypeScript and kernels work on the same planes. It grows as needed
 * up to `mostBytes` and never shrinks; freed blocks are joined with their neighbours and used again, first fit.
 */
export function createArena(mostBytes: number): Arena {
  const maximum = Math.ceil(mostBytes / PAGE);
  const memory = new WebAssembly.Memory({ initial: 16, maximum, shared: true });
  let free: Block[] = [{ offset: PAGE, bytes: memory.buffer.byteLength - PAGE }];
  let used = 0;

  function grow(bytes: number): void {
    const end = memory.buffer.byteLength;
    const pages = Math.ceil(bytes / PAGE);
    if (end / PAGE + pages > maximum)
      throw new ArenaFullError('The picture needs more memory than is set aside.');
    try {
      memory.grow(pages);
    } catch {
      // The machine has less than is set aside: what is kept is then dropped for it, as when the arena is full.
      throw new ArenaFullError('This machine has no more memory for the picture.');
    }
    give({ offset: end, bytes: pages * PAGE });
  }

  function give(block: Block): void {
    const sorted = [...free, block].sort((a, b) => a.offset - b.offset);
    free = [];
    for (const next of sorted) {
      const last = free[free.length - 1];
      if (last && last.offset + last.bytes === next.offset) last.bytes += next.bytes;
      else free.push({ ...next });
    }
  }

  return {
    memory,
    allocate(bytes) {
      const size = Math.max(ALIGNMENT, Math.ceil(bytes / ALIGNMENT) * ALIGNMENT);
      let place = free.find((block) => block.bytes >= size);
      if (!place) {
        grow(size);
        place = free.find((block) => block.bytes >= size)!;
      }
      const block = { offset: place.offset, bytes: size };
      place.offset += size;
      place.bytes -= size;
      free = free.filter(({ bytes: left }) => left > 0);
      used += size;
      return block;
    },
    release(block) {
      used -= block.bytes;
      give(block);
    },
    used: () => used,
  };
}
