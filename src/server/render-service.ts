import { createArena } from '@/engine/arena';
import { createNodePool } from '@/engine/node-pool';
import { createRenderer, type Renderer } from '@/engine/renderer';
import { plateCodes } from './plate-codes';

const MEBIBYTE = 2 ** 20;

/** The server's renderer: most memory of its arena, and what it keeps between frames. */
const MEMORY = { most: 1536 * MEBIBYTE, kept: 256 * MEBIBYTE } as const;

/** A renderer on worker threads that reads plates from a data folder's asset store. */
export function createServerRenderer(dataDir: string): Renderer {
  const arena = createArena(MEMORY.most);
  return createRenderer(
    arena,
    createNodePool(arena),
    (asset, size) => plateCodes(dataDir, asset, size),
    MEMORY.kept,
  );
}

const shared = globalThis as { sundewRenderer?: Renderer };

/** The running server's one renderer. */
export function serverRenderer(dataDir: string): Renderer {
  return (shared.sundewRenderer ??= createServerRenderer(dataDir));
}
