import { randomUUID } from 'node:crypto';
import { readdir, readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { eq } from 'drizzle-orm';
import { parseScene } from '@/core/scene/parse-scene';
import { scenes, seeds } from '@/db/schema';
import { receiveFromDisk } from '../assets/asset-store';
import { insertScene, takePlate } from './intake';
import { takePlaced } from './take-placed';
import type { Workspace } from '../assets/workspace';

/** A demo scene on disk: its plate is named, the plate's hash and size are filled in when it is seeded. */
interface DemoScene {
  id: string;
  plateFile: string;
  /** Pictures that are placed in it, in their order: files beside the plates. */
  placedFiles?: string[];
  scene: Record<string, unknown>;
}

/**
 * Puts the scenes of a folder in, with plates beside them, each once for ever: one that is there, was changed, or was
 * deleted is left alone. Returns the ids that were put in.
 */
export async function seedDemo(space: Workspace, demoDir: string): Promise<string[]> {
  const scenesDir = join(demoDir, 'scenes');
  const names = (await readdir(scenesDir)).filter((name) => name.endsWith('.json')).sort();
  const added: string[] = [];
  for (const name of names) {
    const demo = JSON.parse(await readFile(join(scenesDir, name), 'utf8')) as DemoScene;
    if (space.db.select().from(seeds).where(eq(seeds.sceneId, demo.id)).get()) continue;
    const received = await receiveFromDisk(space.dataDir, join(demoDir, 'plates', demo.plateFile));
    const { width, height } = await takePlate(space, received);
    const placed = await placedIn(space, demo, demoDir);
    const scene = parseScene({ ...demo.scene, placed, plate: { asset: received.hash, width, height } });
    const taken = space.db.select().from(scenes).where(eq(scenes.id, demo.id)).get();
    insertScene(space, taken ? randomUUID() : demo.id, scene);
    space.db.insert(seeds).values({ sceneId: demo.id }).run();
    added.push(demo.id);
  }
  return added;
}

/** A demo scene's placed pictures with what is known of their files. */
async function placedIn(
  space: Workspace,
  { scene, placedFiles = [] }: DemoScene,
  demoDir: string,
): Promise<object[]> {
  const placed = (scene.placed ?? []) as object[];
  const filled: object[] = [];
  for (const [k, one] of placed.entries()) {
    const path = join(demoDir, 'pictures', placedFiles[k]);
    const { note: _, ...picture } = await takePlaced(space, await receiveFromDisk(space.dataDir, path));
    filled.push({ ...one, ...picture });
  }
  return filled;
}
