import { wrap } from 'comlink';
import type { Arena } from './arena';
import { KERNEL_SCRATCH } from './kernels';
import type { PerformerService } from './performer-service';
import type { Task } from './task';
import { createPool, type Pool, type WorkerPort } from './pool';

/** Where the kernels are served. */
const KERNELS = '/kernels.wasm';

/** A pool of web workers on an arena. */
export function createBrowserPool(arena: Arena): Pool {
  const { memory } = arena;
  const compiled = WebAssembly.compileStreaming(fetch(KERNELS));
  const spawn = (): WorkerPort => {
    const worker = new Worker(new URL('./render.worker.ts', import.meta.url), { type: 'module' });
    const service = wrap<PerformerService>(worker);
    const block = arena.allocate(KERNEL_SCRATCH);
    const ready = compiled.then((module) => service.attach({ memory, module, scratch: block.offset }));
    const port = {
      perform: async (task: Task) => {
        await ready;
        await service.perform(task);
      },
      died: new Promise<Error>((resolve) => {
        worker.addEventListener('error', (event) => resolve(new Error(event.message || 'it failed to load')));
      }),
      terminate: () => worker.terminate(),
    };
    void port.died.then(() => arena.release(block));
    return port;
  };
  return createPool(spawn, Math.min(8, Math.max(2, navigator.hardwareConcurrency)));
}
