import { createPerformer } from '@/engine/graph/performer';
import type { Task } from '@/engine/graph/task';
import { createKernels, KERNEL_SCRATCH, type Kernels } from '@/engine/kernels/kernels';
import { createArena } from '@/engine/memory/arena';
import { loadKernels } from '@/engine/pool/node-pool';
import { createPool } from '@/engine/pool/pool';
import { createRenderer, type Renderer } from '@/engine/renderer';
import { STAGES } from '@/engine/stages';
import { loadCoverage } from '@/server/assets/coverage-store';
import { loadLut } from '@/server/assets/lut-store';
import type { Workspace } from '@/server/assets/workspace';

const MEBIBYTE = 2 ** 20;

/**
 * A renderer on this thread alone, so that what it does can be timed. `change` may watch or change its kernels.
 *
 * @returns it, and the milliseconds that tasks of each stage took
 */
export function directRenderer(
  { dataDir, plates }: Workspace,
  change: (kernels: Kernels) => Kernels = (kernels) => kernels,
): { renderer: Renderer; spent: Map<string, number> } {
  const arena = createArena(1536 * MEBIBYTE);
  const scratch = arena.allocate(KERNEL_SCRATCH).offset;
  const perform = createPerformer(
    STAGES,
    arena.memory,
    change(createKernels(loadKernels(), arena.memory, scratch)),
  );
  const spent = new Map<string, number>();
  const timed = (task: Task) => {
    const from = performance.now();
    perform(task);
    const name = task.pieces[task.pieces.length - 1].stage;
    spent.set(name, (spent.get(name) ?? 0) + performance.now() - from);
  };
  const port = {
    perform: (task: Task) => Promise.resolve().then(() => timed(task)),
    died: new Promise<never>(() => {}),
    terminate: () => Promise.resolve(),
  };
  const assets = {
    codes: (asset: string, region: Parameters<typeof plates.read>[1]) => plates.read(asset, region),
    lut: (asset: string) => loadLut(dataDir, asset),
    coverage: (asset: string) => loadCoverage(dataDir, asset),
  };
  return {
    renderer: createRenderer(
      arena,
      createPool(() => port, 1),
      assets,
      512 * MEBIBYTE,
    ),
    spent,
  };
}
