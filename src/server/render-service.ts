import { createArena } from '@/engine/arena';
import { createNodePool } from '@/engine/node-pool';
import { createRenderer, type Renderer } from '@/engine/renderer';
import { createPlateReader, type PlateReader } from './plate-codes';

const MEBIBYTE = 2 ** 20;

/** The server's renderer: most memory of its arena, and what it keeps between frames. */
const MEMORY = { most: 1536 * MEBIBYTE, kept: 256 * MEBIBYTE } as const;

/** A renderer on worker threads. */
export function createServerRenderer(plates: PlateReader): Renderer {
  const arena = createArena(MEMORY.most);
  return createRenderer(
    arena,
    createNodePool(arena),
    (asset, region) => plates.read(asset, region),
    MEMORY.kept,
  );
}

const shared = globalThis as { sundewPlates?: PlateReader; sundewRenderer?: Renderer };

/** The running server's one reader of plates. */
export function serverPlates(dataDir: string): PlateReader {
  return (shared.sundewPlates ??= createPlateReader(dataDir));
}

/** The running server's one renderer. */
export function serverRenderer(dataDir: string): Renderer {
  return (shared.sundewRenderer ??= createServerRenderer(serverPlates(dataDir)));
}
