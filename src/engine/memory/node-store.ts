import { ArenaFullError, type Arena, type Block } from './arena';

/** Planes of one node of the picture's graph, with offsets for tasks. */
export interface Node<Refs> {
  blocks: Block[];
  refs: Refs;
}

/**
 * Keeps computed nodes by key under a memory budget. Frames come one after the other: what the present frame used is
 * never dropped, of the rest the longest unused goes first.
 */
export interface NodeStore {
  beginFrame: () => void;
  /** Drops what the budget does not hold. */
  endFrame: () => void;
  /**
   * The node of a key, made unless it is there or underway. A make that fails leaves nothing behind. Of nodes with one `slot` only the
   * newest is kept: such as are made anew at every move of a fader.
   */
  node: <Refs>(key: string, make: () => Promise<Node<Refs>>, slot?: string) => Promise<Node<Refs>>;
  has: (key: string) => boolean;
  /** A block of the arena; unused nodes are dropped for it when the arena is full. */
  allocate: (bytes: number) => Block;
  clear: () => void;
}

export function createNodeStore(arena: Arena, budgetBytes: number): NodeStore {
  const entries = new Map<string, { node: Node<unknown>; lastUsed: number }>();
  const making = new Map<string, Promise<Node<unknown>>>();
  const slots = new Map<string, string>();
  let frame = 0;

  function drop(key: string): void {
    entries.get(key)?.node.blocks.forEach(arena.release);
    entries.delete(key);
  }

  function dropOldest(): boolean {
    let oldest: string | undefined;
    let age = frame;
    for (const [key, { lastUsed }] of entries) if (lastUsed < age) [oldest, age] = [key, lastUsed];
    if (oldest === undefined) return false;
    drop(oldest);
    return true;
  }

  return {
    beginFrame() {
      frame++;
    },
    endFrame() {
      while (arena.used() > budgetBytes && dropOldest());
    },
    async node<Refs>(key: string, make: () => Promise<Node<Refs>>, slot?: string) {
      const found = entries.get(key);
      if (found) {
        found.lastUsed = frame;
        return found.node as Node<Refs>;
      }
      const underway = making.get(key);
      if (underway) return (await underway) as Node<Refs>;
      if (slot !== undefined) {
        const old = slots.get(slot) ?? '';
        // What this frame has used may still be read.
        if ((entries.get(old)?.lastUsed ?? frame) < frame) drop(old);
        slots.set(slot, key);
      }
      const made = make();
      making.set(key, made);
      try {
        const node = await made;
        entries.set(key, { node, lastUsed: frame });
        return node;
      } finally {
        making.delete(key);
      }
    },
    has: (key) => entries.has(key),
    allocate(bytes) {
      for (;;) {
        try {
          return arena.allocate(bytes);
        } catch (error) {
          if (!(error instanceof ArenaFullError) || !dropOldest()) throw error;
        }
      }
    },
    clear() {
      for (const key of [...entries.keys()]) drop(key);
    },
  };
}
