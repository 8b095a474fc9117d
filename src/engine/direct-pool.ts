import { createPerformer } from './perform-task';
import { createPool, type Pool } from './pool';

/** A pool without threads: tasks run where they are asked for. For tests and for measuring. */
export function createDirectPool(memory: WebAssembly.Memory): Pool {
  const perform = createPerformer(memory);
  return createPool(
    () => ({
      perform: async (task) => perform(task),
      died: new Promise(() => {}),
      terminate: () => {},
    }),
    1,
  );
}
