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
  beginFrame(): void;
  /** Drops what the budget does not hold. */
  endFrame(): void;
  /**
   * The node of a key, made unless it is there or underway. A make that fails leaves nothing behind. Of nodes with one `slot` only the
   * newest is kept: such as are made anew at every move of a fader.
   */
  node<Refs>(key: string, make: () => Promise<Node<Refs>>, slot?: string): Promise<Node<Refs>>;
  has(key: string): boolean;
  /** A block of the arena; unused nodes are dropped for it when the arena is full. */
  allocate(bytes: number): Block;
  clear(): void;
}

export const createNodeStore = (arena: Arena, budgetBytes: number): NodeStore =>
  new BudgetedStore(arena, budgetBytes);

class BudgetedStore implements NodeStore {
  private readonly entries = new Map<string, { node: Node<unknown>; lastUsed: number }>();
  private readonly making = new Map<string, Promise<Node<unknown>>>();
  private readonly slots = new Map<string, string>();
  private frame = 0;

  constructor(
    private readonly arena: Arena,
    private readonly budgetBytes: number,
  ) {}

  beginFrame(): void {
    this.frame++;
  }

  endFrame(): void {
    while (this.arena.used() > this.budgetBytes && this.dropOldest());
  }

  async node<Refs>(key: string, make: () => Promise<Node<Refs>>, slot?: string): Promise<Node<Refs>> {
    const found = this.entries.get(key);
    if (found) {
      found.lastUsed = this.frame;
      return found.node as Node<Refs>;
    }
    const underway = this.making.get(key);
    if (underway) return (await underway) as Node<Refs>;
    if (slot !== undefined) this.takeSlot(slot, key);
    const made = make();
    this.making.set(key, made);
    try {
      const node = await made;
      this.entries.set(key, { node, lastUsed: this.frame });
      return node;
    } finally {
      this.making.delete(key);
    }
  }

  has(key: string): boolean {
    return this.entries.has(key);
  }

  allocate(bytes: number): Block {
    for (;;) {
      try {
        return this.arena.allocate(bytes);
      } catch (error) {
        if (!(error instanceof ArenaFullError) || !this.dropOldest()) throw error;
      }
    }
  }

  clear(): void {
    for (const key of [...this.entries.keys()]) this.drop(key);
  }

  /** Drops what had a slot before. */
  private takeSlot(slot: string, key: string): void {
    const old = this.slots.get(slot) ?? '';
    // What this frame has used may still be read.
    if ((this.entries.get(old)?.lastUsed ?? this.frame) < this.frame) this.drop(old);
    this.slots.set(slot, key);
  }

  private drop(key: string): void {
    this.entries.get(key)?.node.blocks.forEach(this.arena.release);
    this.entries.delete(key);
  }

  private dropOldest(): boolean {
    let oldest: string | undefined;
    let age = this.frame;
    for (const [key, { lastUsed }] of this.entries) if (lastUsed < age) [oldest, age] = [key, lastUsed];
    if (oldest === undefined) return false;
    this.drop(oldest);
    return true;
  }
}
