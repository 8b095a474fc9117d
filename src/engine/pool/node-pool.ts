import { readFileSync } from 'node:fs';
import { availableParallelism } from 'node:os';
import { join } from 'node:path';
import { Worker } from 'node:worker_threads';
import { wrap } from 'comlink';
import nodeEndpoint from 'comlink/dist/esm/node-adapter.mjs';
import type { Arena } from '../memory/arena';
import type { PerformerService } from './performer-service';
import { createPool, type Pool } from './pool';
import { createWorkerPort } from './worker-port';

/** Where `npm run build:workers` leaves the bundled worker. */
const WORKER_FILE = ['dist', 'render-worker.mjs'];

/** Where `npm run build:kernels` leaves the kernels. */
const KERNELS_FILE = ['public', 'kernels.wasm'];

/** The compiled kernels, as the browser gets them too. */
export function loadKernels(): WebAssembly.Module {
  return new WebAssembly.Module(
    readFileSync(join(/* turbopackIgnore: true */ process.cwd(), ...KERNELS_FILE)),
  );
}

/** A pool of worker threads on an arena. */
export function createNodePool(arena: Arena, size = availableParallelism()): Pool {
  const module = Promise.resolve(loadKernels());
  const file = join(/* turbopackIgnore: true */ process.cwd(), ...WORKER_FILE);
  const spawn = () => {
    const worker = new Worker(file);
    worker.unref();
    return createWorkerPort(arena, module, {
      service: wrap<PerformerService>(nodeEndpoint(worker)),
      died: new Promise((resolve) => {
        worker.on('error', (error) => resolve(error));
        worker.on('exit', (code) => resolve(new Error(`exit code ${code}`)));
      }),
      terminate: async () => void (await worker.terminate()),
    });
  };
  return createPool(spawn, Math.max(1, size));
}
