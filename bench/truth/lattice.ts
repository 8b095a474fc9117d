// Prints what light on a lattice saves and what it changes: each demo scene with it and with every pixel lit by itself.
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { wholeRegion } from '@/core/plane/region';
import type { Scene } from '@/core/scene/schema';
import { previewSize } from '@/engine/sizes';
import { openWorkspace } from '@/server/assets/workspace';
import { listScenes, openScene } from '@/server/scenes/scene-repository';
import { seedDemo } from '@/server/scenes/seed';
import { directRenderer } from '../speed/direct-renderer';

const dataDir = await mkdtemp(join(tmpdir(), 'sundew-lattice-'));
const space = openWorkspace(dataDir);
await seedDemo(space, 'demo');

/** A frame at preview size, and the milliseconds that its lights took. */
async function lit(scene: Scene, thinned: boolean): Promise<{ codes: Uint8ClampedArray; took: number }> {
  let took = 0;
  const { renderer } = directRenderer(space, ({ addLights, ...rest }) => ({
    ...rest,
    addLights(...[out, relief, camera, region, rows, lights, shades]) {
      const from = performance.now();
      addLights(out, relief, camera, region, rows, lights, shades, thinned);
      took += performance.now() - from;
    },
  }));
  const { width, height } = previewSize(scene.plate, 1600);
  const request = { scene, region: wholeRegion(width, height) };
  const codes = await renderer.frame(request, new AbortController().signal, (pixels) => pixels.slice());
  renderer.close();
  return { codes, took };
}

for (const { id } of listScenes(space)) {
  const { scene } = openScene(space, id);
  const [each, lattice] = [await lit(scene, false), await lit(scene, true)];
  const steps = each.codes.map((code, i) => Math.abs(code - lattice.codes[i]));
  const changed = steps.reduce((count, step) => count + (step > 0 ? 1 : 0), 0);
  console.log(
    id.padEnd(22),
    `every pixel ${each.took.toFixed(0).padStart(5)} ms, lattice ${lattice.took.toFixed(0).padStart(5)} ms;`,
    `codes changed ${((100 * changed) / steps.length).toFixed(3)} %, most ${Math.max(...new Set(steps))}`,
  );
}
await rm(dataDir, { recursive: true, force: true });
process.exit(0);
