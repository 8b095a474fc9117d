import { releaseProxy, type Remote } from 'comlink';
import type { Arena } from '../memory/arena';
import { KERNEL_SCRATCH } from '../kernels/kernels';
import type { PerformerService } from './performer-service';
import type { WorkerPort } from './pool';

/** What differs between a web worker and a worker thread. */
interface WorkerThread extends Pick<WorkerPort, 'died' | 'terminate'> {
  service: Remote<PerformerService>;
}

/** Hands a fresh worker the arena, the kernels and a scratch of its own, which the arena gets back when it ends. */
export function createWorkerPort(
  arena: Arena,
  module: Promise<WebAssembly.Module>,
  { service, died, terminate }: WorkerThread,
): WorkerPort {
  const { memory } = arena;
  const block = arena.allocate(KERNEL_SCRATCH);
  const ready = module.then((compiled) =>
    service.attach({ memory, module: compiled, scratch: block.offset }),
  );
  ready.catch(() => {}); // The first task tells of it.
  let ended: Promise<void> | undefined;
  const end = async () => {
    service[releaseProxy]();
    await terminate();
    arena.release(block);
  };
  return {
    perform: async (task) => {
      await ready;
      await service.perform(task);
    },
    died,
    terminate: () => (ended ??= end()),
  };
}
