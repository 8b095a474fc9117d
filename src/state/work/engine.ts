import { createArena, type Arena } from '@/engine/memory/arena';
import { createBrowserPool } from '@/engine/pool/browser-pool';
import type { Pool } from '@/engine/pool/pool';

const MEBIBYTE = 2 ** 20;

/** What a window's stages may take, and what of it is kept between frames. */
export const MEMORY = { most: 1024 * MEBIBYTE, kept: 512 * MEBIBYTE };

/** What frames are made on: one memory, and the workers that see it. */
export interface Engine {
  arena: Arena;
  pool: Pool;
}

function startEngine(): Engine {
  const arena = createArena(MEMORY.most);
  return { arena, pool: createBrowserPool(arena) };
}

/** Starts an engine before anybody asks for one: its workers load while the scene and the editor do. */
export function startEarly() {
  let ready: Engine | undefined = startEngine();
  return {
    /** The engine that was started, and for who asks again a new one. It is closed by whoever takes it. */
    take: (): Engine => {
      const engine = ready ?? startEngine();
      ready = undefined;
      return engine;
    },
    /** Ends it where nobody took it. */
    drop: (): void => {
      ready?.pool.close();
      ready = undefined;
    },
  };
}
