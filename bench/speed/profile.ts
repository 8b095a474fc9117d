// Prints where the time of a first fine frame goes: milliseconds of each stage on one thread, scene by scene of the demo.
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { wholeRegion } from '@/core/plane/region';
import type { Scene } from '@/core/scene/schema';
import { createPerformer } from '@/engine/graph/performer';
import { createKernels, KERNEL_SCRATCH } from '@/engine/kernels/kernels';
import { createArena } from '@/engine/memory/arena';
import { loadKernels } from '@/engine/pool/node-pool';
import { createPool } from '@/engine/pool/pool';
import { createRenderer } from '@/engine/renderer';
import { previewSize } from '@/engine/sizes';
import { STAGES } from '@/engine/stages';
import { loadCoverage } from '@/server/assets/coverage-store';
import { loadLut } from '@/server/assets/lut-store';
import { openWorkspace, type Workspace } from '@/server/assets/workspace';
import { listScenes, openScene } from '@/server/scenes/scene-repository';
import { seedDemo } from '@/server/scenes/seed';

const MEBIBYTE = 2 ** 20;
const VIEW_WIDTH = 1600;

/** Milliseconds of each stage of a scene's first fine frame. Loading is a row of its own, and so is what is between tasks. */
async function profile({ dataDir, plates }: Workspace, scene: Scene): Promise<Map<string, number>> {
  const arena = createArena(1536 * MEBIBYTE);
  const kernels = createKernels(loadKernels(), arena.memory, arena.allocate(KERNEL_SCRATCH).offset);
  const perform = createPerformer(STAGES, arena.memory, kernels);
  const spent = new Map<string, number>();
  const note = (name: string, from: number) =>
    spent.set(name, (spent.get(name) ?? 0) + performance.now() - from);
  const pool = createPool(
    () => ({
      async perform(task) {
        const from = performance.now();
        perform(task);
        note(task.pieces.map(({ stage }) => stage).at(-1)!, from);
      },
      died: new Promise(() => {}),
      terminate: () => Promise.resolve(),
    }),
    1,
  );
  const assets = {
    codes: (asset: string, of: Parameters<typeof plates.read>[1]) => plates.read(asset, of),
    lut: (asset: string) => loadLut(dataDir, asset),
    coverage: (asset: string) => loadCoverage(dataDir, asset),
  };
  const renderer = createRenderer(arena, pool, assets, 512 * MEBIBYTE);
  const { width, height } = previewSize(scene.plate, VIEW_WIDTH);
  const from = performance.now();
  await renderer.frame(
    { scene, region: wholeRegion(width, height) },
    new AbortController().signal,
    () => undefined,
  );
  const stages = [...spent.values()].reduce((sum, one) => sum + one, 0);
  spent.set('(all between)', performance.now() - from - stages);
  renderer.close();
  return spent;
}

const dataDir = await mkdtemp(join(tmpdir(), 'sundew-profile-'));
const space = openWorkspace(dataDir);
await seedDemo(space, 'demo');
const summaries = listScenes(space);
const scenes = summaries.map(({ id }) => openScene(space, id).scene);
await profile(space, scenes[0]);
const columns: Map<string, number>[] = [];
for (const scene of scenes) columns.push(await profile(space, scene));
const names = [...new Set(columns.flatMap((column) => [...column.keys()]))];
const sumOf = (name: string) => columns.reduce((sum, column) => sum + (column.get(name) ?? 0), 0);
names.sort((a, b) => sumOf(b) - sumOf(a));
const line = (name: string, cells: string[]) =>
  console.log(name.padEnd(18), ...cells.map((cell) => cell.padStart(14)));
line(
  'milliseconds',
  summaries.map(({ id }) => id.slice(0, 14)),
);
for (const name of names)
  line(
    name,
    columns.map((column) => (column.get(name) ?? 0).toFixed(0)),
  );
line(
  'all',
  columns.map((column) => [...column.values()].reduce((sum, one) => sum + one, 0).toFixed(0)),
);
await rm(dataDir, { recursive: true, force: true });
process.exit(0);
