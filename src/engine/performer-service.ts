import { createPerformer } from './perform-task';
import type { Task } from './task';

/** What a worker offers over its bridge: first the shared memory, then tasks. */
export interface PerformerService {
  attach: (memory: WebAssembly.Memory) => void;
  perform: (task: Task) => void;
}

export function createPerformerService(): PerformerService {
  let perform: ((task: Task) => void) | undefined;
  return {
    attach(memory) {
      perform = createPerformer(memory);
    },
    perform(task) {
      if (!perform) throw new Error('The worker has no memory yet.');
      perform(task);
    },
  };
}
