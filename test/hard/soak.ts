import { wholeRegion } from '@/core/plane/region';
import { setFixture } from '@/core/scene/fixture-commands';
import { runCommand } from '@/core/scene/command';
import { createArena } from '@/engine/memory/arena';
import { createNodePool } from '@/engine/pool/node-pool';
import { createRenderer } from '@/engine/renderer';
import { streetAssets, streetLamp, streetScene } from '../street';
import type { Figures } from './figures';
import type { Random } from './random';

const MEBIBYTE = 2 ** 20;
const BUDGET = 96 * MEBIBYTE;
const REGION = wholeRegion(720, 480);

/** Planes of a frame that may be in use beside what is kept. */
const FRAME = 4 * REGION.width * REGION.height * 40;

/** Drags lamps and undoes it, as in an hour of work, and holds a renderer's memory against its budget. */
export async function soakTest(drags: number, random: Random, figures: Figures): Promise<void> {
  const arena = createArena(256 * MEBIBYTE);
  const pool = createNodePool(arena);
  const renderer = createRenderer(arena, pool, streetAssets(), BUDGET);
  const scene = streetScene([0.2, 0.4, 0.6, 0.8].map((u, i) => streetLamp(`l${i}`, u)));
  const never = new AbortController().signal;
  const heap: number[] = [];
  let most = 0;
  for (let drag = 0; drag < drags; drag++) {
    const moving = random.pick(scene.fixtures);
    for (let step = 0; step < 4; step++) {
      const at = { u: random.next(), v: 0.2 + 0.3 * random.next() };
      const moved = runCommand(scene, setFixture('move', moving.id, { at })).scene;
      await renderer.frame({ scene: moved, region: REGION, moving }, never, () => {});
      most = Math.max(most, arena.used());
    }
    await renderer.frame({ scene, region: REGION }, never, () => {});
    heap.push(process.memoryUsage().heapUsed / MEBIBYTE);
  }
  const mean = (list: number[]) => list.reduce((sum, value) => sum + value, 0) / list.length;
  const quarter = Math.max(1, heap.length >> 2);
  figures.note('drags, each undone', drags);
  figures.atMost('most memory of planes in use', most / MEBIBYTE, (BUDGET + FRAME) / MEBIBYTE, 'MiB');
  const grown = mean(heap.slice(-quarter)) - mean(heap.slice(quarter, 2 * quarter));
  figures.atMost('growth of the heap from the second quarter to the last', grown, 24, 'MiB');
  renderer.close();
}
