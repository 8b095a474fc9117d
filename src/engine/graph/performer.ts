import type { Kernels } from '../kernels/kernels';
import type { AnyStage } from './stage-spec';
import type { Piece, Rows, Task } from './task';
import { bandOf, loadedIn, viewOf, viewsOf, type View } from './view';

/** Does tasks on one shared memory, with kernels or with their twins in the core. Each stage's kit is made once. */
export function createPerformer(
  stages: readonly AnyStage[],
  memory: WebAssembly.Memory,
  kernels?: Kernels,
): (task: Task) => void {
  const byName = new Map(stages.map((stage) => [stage.name, stage]));
  const kits = new Map<string, unknown>();

  function kitOf({ name, kit }: AnyStage): unknown {
    if (kit && !kits.has(name)) kits.set(name, kit());
    return kits.get(name);
  }

  function perform({ stage: name, out, inputs, settings, prepared, loaded }: Piece, rows: Rows): void {
    const stage = byName.get(name);
    if (!stage) throw new Error(`No stage has the name "${name}".`);
    const work = {
      ...{ settings, prepared, kernels, kit: kitOf(stage) },
      loaded: loaded && loadedIn(memory, loaded),
    };
    const made = viewOf(memory, out) as View<any>; // eslint-disable-line @typescript-eslint/no-explicit-any -- its stage knows the names
    stage.run(made, viewsOf(memory, inputs), work, bandOf(out.region, rows));
  }

  return ({ pieces, rows }) => pieces.forEach((piece) => perform(piece, rows));
}
