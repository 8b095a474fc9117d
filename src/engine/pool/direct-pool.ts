import type { Kernels } from '../kernels/kernels';
import { createPerformer } from '../graph/performer';
import { STAGES } from '../stages';
import { createPool, type Pool } from './pool';

/** A pool without threads: tasks run where they are asked for. For tests and for measuring. */
export function createDirectPool(memory: WebAssembly.Memory, kernels?: Kernels): Pool {
  const perform = createPerformer(STAGES, memory, kernels);
  return createPool(
    () => ({
      perform: (task) => Promise.resolve().then(() => perform(task)),
      died: new Promise(() => {}),
      terminate: () => Promise.resolve(),
    }),
    1,
  );
}
