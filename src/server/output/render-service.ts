import { createArena } from '@/engine/memory/arena';
import { createNodePool } from '@/engine/pool/node-pool';
import { createRenderer, type Renderer } from '@/engine/renderer';
import { loadCoverage } from '../assets/coverage-store';
import { loadLut } from '../assets/lut-store';
import { workspace, type Workspace } from '../assets/workspace';
import { createServedResults, type ServedResults } from './served-results';

const MEBIBYTE = 2 ** 20;

/** The server's renderer: most memory of its arena, and what it keeps between frames. */
const MEMORY = { most: 1536 * MEBIBYTE, kept: 256 * MEBIBYTE } as const;

/** A renderer on worker threads. @param results where it finds what was made before */
export function createServerRenderer(
  { dataDir, plates }: Pick<Workspace, 'dataDir' | 'plates'>,
  results?: ServedResults,
): Renderer {
  const arena = createArena(MEMORY.most);
  return createRenderer(
    arena,
    createNodePool(arena),
    {
      codes: (asset, region) => plates.read(asset, region),
      lut: (asset) => loadLut(dataDir, asset),
      coverage: (asset) => loadCoverage(dataDir, asset),
      results,
    },
    MEMORY.kept,
  );
}

const shared = globalThis as { sundewRenderer?: Renderer; sundewResults?: ServedResults };

/** What the running server's renderer has made, and is making. */
export const servedResults = (): ServedResults =>
  (shared.sundewResults ??= createServedResults(workspace().dataDir));

/** The running server's one renderer. */
export function serverRenderer(): Renderer {
  return (shared.sundewRenderer ??= createServerRenderer(workspace(), servedResults()));
}
