import type { Region } from '@/core/plane/region';
import { allOf } from './all-of';
import type { Arena, Block } from './arena';
import type { Node, NodeStore } from './node-store';
import type { Pool } from './pool';
import type { RenderAssets } from './render-assets';
import type { Rows, Task } from './task';

/** Pixels of a heavy task: few enough that an outdated frame is soon given up. */
const BAND_PIXELS = 80_000;

/** Tasks a worker that quick work is cut into: it is never given up. */
const QUICK_BANDS = 2;

/** What the nodes of a picture's graph are made with. */
export interface Graph {
  arena: Arena;
  pool: Pool;
  store: NodeStore;
  assets: RenderAssets;
  /** Runs a task per band, on all workers; waits for every band even when one fails. */
  inBands: (
    region: Region,
    signal: AbortSignal,
    task: (rows: Rows) => Task,
    pace?: 'quick' | 'heavy',
  ) => Promise<void>;
  /** Makes a node of planes with the given names and sizes, in floats. */
  planes: <Name extends string>(
    sizes: Record<Name, number>,
    signal: AbortSignal,
    fill: (refs: Record<Name, number>) => Promise<void>,
  ) => Promise<Node<Record<Name, number>>>;
}

export function createGraph({
  arena,
  pool,
  store,
  assets,
}: Pick<Graph, 'arena' | 'pool' | 'store' | 'assets'>): Graph {
  return {
    arena,
    pool,
    store,
    assets,
    async inBands(region, signal, task, pace = 'heavy') {
      const bands =
        pace === 'quick'
          ? QUICK_BANDS * pool.size
          : Math.max(pool.size, Math.ceil((region.width * region.height) / BAND_PIXELS));
      const step = Math.max(1, Math.ceil(region.height / bands));
      const running: Promise<void>[] = [];
      for (let from = 0; from < region.height; from += step) {
        running.push(pool.run(task({ from, to: Math.min(region.height, from + step) }), signal));
      }
      await allOf(running);
    },
    async planes<Name extends string>(
      sizes: Record<Name, number>,
      signal: AbortSignal,
      fill: (refs: Record<Name, number>) => Promise<void>,
    ) {
      signal.throwIfAborted();
      const blocks: Block[] = [];
      try {
        const refs = {} as Record<Name, number>;
        for (const name of Object.keys(sizes) as Name[]) {
          const block = store.allocate(4 * sizes[name]);
          blocks.push(block);
          refs[name] = block.offset;
        }
        await fill(refs);
        return { blocks, refs };
      } catch (error) {
        blocks.forEach(arena.release);
        throw error;
      }
    },
  };
}
