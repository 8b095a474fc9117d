import { availableParallelism } from 'node:os';
import { join } from 'node:path';
import { Worker } from 'node:worker_threads';
import { wrap } from 'comlink';
import nodeEndpoint from 'comlink/dist/esm/node-adapter.mjs';
import type { PerformerService } from './performer-service';
import { createPool, type Pool, type WorkerPort } from './pool';

/** Where `npm run build:workers` leaves the bundled worker. */
const WORKER_FILE = ['dist', 'render-worker.mjs'];

/** A pool of worker threads on a shared memory. */
export function createNodePool(memory: WebAssembly.Memory, size = availableParallelism()): Pool {
  const file = join(/* turbopackIgnore: true */ process.cwd(), ...WORKER_FILE);
  const spawn = (): WorkerPort => {
    const worker = new Worker(file);
    worker.unref();
    const service = wrap<PerformerService>(nodeEndpoint(worker));
    const ready = service.attach(memory);
    return {
      perform: async (task) => {
        await ready;
        await service.perform(task);
      },
      died: new Promise((resolve) => {
        worker.on('error', (error) => resolve(error as Error));
        worker.on('exit', (code) => resolve(new Error(`exit code ${code}`)));
      }),
      terminate: () => void worker.terminate(),
    };
  };
  return createPool(spawn, Math.max(1, size));
}
