import { createKernels } from '../kernels/kernels';
import { createPerformer } from '../graph/performer';
import { STAGES } from '../stages';
import type { PlaneRef, Task } from '../graph/task';

/** What a worker gets before its first task. */
export interface WorkerKit {
  memory: WebAssembly.Memory;
  /** The compiled kernels. */
  module: WebAssembly.Module;
  /** A block of the memory that is this worker's alone. */
  scratch: PlaneRef;
}

/** What a worker offers over its bridge: first its kit, then tasks. */
export interface PerformerService {
  attach: (kit: WorkerKit) => void;
  perform: (task: Task) => void;
}

export function createPerformerService(): PerformerService {
  let perform: ((task: Task) => void) | undefined;
  return {
    attach({ memory, module, scratch }) {
      perform = createPerformer(STAGES, memory, createKernels(module, memory, scratch));
    },
    perform(task) {
      if (!perform) throw new Error('The worker has no memory yet.');
      perform(task);
    },
  };
}
