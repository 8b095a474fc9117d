import { access, mkdir, mkdtemp, open, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { extname, join } from 'node:path';
import { framedSize } from '@/core/frame/frame';
import { burns, withBurning } from '@/core/picture/layers';
import type { Scene } from '@/core/scene/schema';
import type { Renderer } from '@/engine/renderer';
import { openWorkspace, type Workspace } from '@/server/assets/workspace';
import { numbered, slug } from '@/server/output/file-names';
import { createServerRenderer } from '@/server/output/render-service';
import { writeOutput } from '@/server/output/write-output';
import { takeSceneFile } from '@/server/scenes/intake';
import { readOrder, UsageError, type RenderOrder } from './render-order';

/** A picture that is to be written, and its file. */
interface Picture {
  scene: Scene;
  out: string;
}

/** The scene, and where that is asked for each of its circuits alone, and the night without any. */
function picturesOf(scene: Scene, { out, circuits: folder }: RenderOrder): Picture[] {
  const whole = { scene, out };
  if (folder === undefined) return [whole];
  const burning = scene.circuits.filter((circuit) => burns(circuit, scene));
  const names = numbered(
    ['night', ...burning.map(({ name }) => slug(name, 'circuit'))],
    extname(out).slice(1),
  );
  const alone = [undefined, ...burning.map(({ id }) => id)].map((id, k) => ({
    ...{ scene: withBurning(scene, (circuit) => circuit.id === id), out: join(folder, names[k]) },
  }));
  return [whole, ...alone];
}

async function write(
  space: Workspace,
  renderer: Renderer,
  { scene, out }: Picture,
  { width, choice }: RenderOrder,
): Promise<void> {
  const full = framedSize(scene.plate, scene.frame);
  const across = Math.min(full.width, width ?? full.width);
  const size = { width: across, height: Math.max(1, Math.round((across * full.height) / full.width)) };
  const { signal } = new AbortController();
  const work = { renderer, space, scene, size, signal, onProgress: () => {} };
  const file = await open(out, 'w');
  await writeOutput(file, work, choice).finally(() => file.close());
  console.log(`${out}: ${size.width} x ${size.height}`);
}

async function main(): Promise<void> {
  const order = readOrder(process.argv.slice(2));
  await access(order.file).catch(() => {
    throw new Error(`${order.file} cannot be read. Check its name.`);
  });
  const dataDir = await mkdtemp(join(tmpdir(), 'sundew-render-'));
  try {
    const space = openWorkspace(dataDir);
    const { scene, note } = await takeSceneFile(space, order.file);
    if (note) console.error(note);
    if (order.circuits !== undefined) await mkdir(order.circuits, { recursive: true });
    const renderer = createServerRenderer(space);
    try {
      for (const picture of picturesOf(scene, order)) await write(space, renderer, picture, order);
    } finally {
      renderer.close();
    }
  } finally {
    await rm(dataDir, { recursive: true, force: true });
  }
}

/** Exit codes: 0 done, 1 the input or the disk is at fault, 2 the command line is. */
main().catch((error: unknown) => {
  const { message } = error as Error;
  console.error(message.split('\n')[0]);
  process.exitCode = error instanceof UsageError ? 2 : 1;
});
