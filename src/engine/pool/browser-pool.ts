import { wrap } from 'comlink';
import type { Arena } from '../memory/arena';
import type { PerformerService } from './performer-service';
import { createPool, type Pool } from './pool';
import { createWorkerPort } from './worker-port';

/** Where the kernels are served. */
const KERNELS = `/kernels.wasm?build=${process.env.SUNDEW_BUILD ?? ''}`;

/** A pool of web workers on an arena. */
export function createBrowserPool(arena: Arena): Pool {
  const module = WebAssembly.compileStreaming(fetch(KERNELS));
  const spawn = () => {
    const worker = new Worker(new URL('./render.worker.ts', import.meta.url), { type: 'module' });
    return createWorkerPort(arena, module, {
      service: wrap<PerformerService>(worker),
      died: new Promise((resolve) => {
        worker.addEventListener('error', (event) => resolve(new Error(event.message || 'it failed to load')));
      }),
      terminate: () => Promise.resolve(worker.terminate()),
    });
  };
  return createPool(spawn, Math.min(8, Math.max(2, navigator.hardwareConcurrency)));
}
