// Prints how well lamps are found in a picture that tells nothing of them: each demo scene with everything lit, against its fixtures.
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { findGlints } from '@/core/lens/find-glints';
import { apart } from '@/core/lens/governed-glints';
import { glintsOf } from '@/engine/readouts/glints';
import { smallSpot } from '@/engine/readouts/small-spot';
import { sum } from '@/engine/stages/sum';
import { openWorkspace } from '@/server/assets/workspace';
import { listScenes, openScene } from '@/server/scenes/scene-repository';
import { seedDemo } from '@/server/scenes/seed';
import { directRenderer } from '../speed/direct-renderer';

/** A lamp is found by what lies this near, fraction of the width. */
const NEAR = 0.01;

const dataDir = await mkdtemp(join(tmpdir(), 'sundew-glints-'));
const space = openWorkspace(dataDir);
await seedDemo(space, 'demo');
const never = new AbortController().signal;

for (const { id } of listScenes(space)) {
  const { scene } = openScene(space, id);
  const { renderer } = directRenderer(space);
  const aspect = scene.plate.width / scene.plate.height;
  const lamps = (await renderer.read(glintsOf(scene), never)).filter(({ from }) => from === 'fixture');
  const found = await renderer.read(
    async (reader) => findGlints(await reader.see(sum(smallSpot(reader, scene)))),
    never,
  );
  const right = found.filter((glint) => lamps.some((lamp) => apart(glint, lamp, aspect) < NEAR));
  const met = lamps.filter((lamp) => found.some((glint) => apart(glint, lamp, aspect) < NEAR));
  console.log(
    id.padEnd(22),
    `${found.length} found, ${right.length} of them lamps; of ${lamps.length} lamps ${met.length} found`,
  );
  renderer.close();
}
await rm(dataDir, { recursive: true, force: true });
process.exit(0);
