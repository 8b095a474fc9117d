import type { Kernels } from './kernels';
import { createLayerTasks } from './perform/layer-tasks';
import { createMatteTasks } from './perform/matte-tasks';
import { createViews } from './perform/memory-views';
import { createNightTasks } from './perform/night-tasks';
import { createPlateTasks } from './perform/plate-tasks';
import type { Task, TaskOf } from './task';

/** One performer a type of task. */
type Performers = { [T in Task['type']]: (task: TaskOf<T>) => void };

/** Does tasks on one shared memory, with kernels or with their twins in the core. Tables are made once. */
export function createPerformer(memory: WebAssembly.Memory, kernels?: Kernels): (task: Task) => void {
  const views = createViews(memory);
  const performers: Performers = {
    ...createPlateTasks(views),
    ...createMatteTasks(views),
    ...createNightTasks(views, kernels),
    ...createLayerTasks(views, kernels),
  };
  return (task) => {
    const perform = performers[task.type] as (task: Task) => void;
    perform(task);
  };
}
