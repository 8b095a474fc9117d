// Prints where the time of a first fine frame goes: milliseconds of each stage on one thread, scene by scene of the demo.
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { wholeRegion } from '@/core/plane/region';
import type { Scene } from '@/core/scene/schema';
import { previewSize } from '@/engine/sizes';
import { openWorkspace } from '@/server/assets/workspace';
import { listScenes, openScene } from '@/server/scenes/scene-repository';
import { seedDemo } from '@/server/scenes/seed';
import { directRenderer } from './direct-renderer';

const VIEW_WIDTH = 1600;

/** Milliseconds of each stage of a scene's first fine frame. What is between tasks, loading above all, is a row of its own. */
async function profile(scene: Scene): Promise<Map<string, number>> {
  const { renderer, spent } = directRenderer(space);
  const { width, height } = previewSize(scene.plate, VIEW_WIDTH);
  const from = performance.now();
  const request = { scene, region: wholeRegion(width, height) };
  await renderer.frame(request, new AbortController().signal, () => undefined);
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

const columns: Map<string, number>[] = [];
for (const scene of scenes) columns.push(await profile(scene));
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
