import { wrap } from 'comlink';
import type { PerformerService } from './performer-service';
import { createPool, type Pool, type WorkerPort } from './pool';

/** A pool of web workers on a shared memory. */
export function createBrowserPool(memory: WebAssembly.Memory): Pool {
  const spawn = (): WorkerPort => {
    const worker = new Worker(new URL('./render.worker.ts', import.meta.url), { type: 'module' });
    const service = wrap<PerformerService>(worker);
    const ready = service.attach(memory);
    return {
      perform: async (task) => {
        await ready;
        await service.perform(task);
      },
      died: new Promise((resolve) => {
        worker.addEventListener('error', (event) => resolve(new Error(event.message || 'it failed to load')));
      }),
      terminate: () => worker.terminate(),
    };
  };
  return createPool(spawn, Math.min(8, Math.max(2, navigator.hardwareConcurrency)));
}
