import type { Kernels } from './kernels';
import { createPerformer } from './perform-task';
import { createPool, type Pool } from './pool';

/** A pool without threads: tasks run where they are asked for. For tests and for measuring. */
export function createDirectPool(memory: WebAssembly.Memory, kernels?: Kernels): Pool {
  const perform = createPerformer(memory, kernels);
  return createPool(
    () => ({
      perform: (task) => Promise.resolve().then(() => perform(task)),
      died: new Promise(() => {}),
      terminate: () => Promise.resolve(),
    }),
    1,
  );
}
