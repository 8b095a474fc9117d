import { randomUUID } from 'node:crypto';
import { mkdtemp, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import sharp from 'sharp';
import { setDesk } from '@/core/scene/commands';
import { runCommand } from '@/core/scene/command';
import { SCENE_VERSION } from '@/core/scene/schema';
import { receiveBytes } from '@/server/assets/asset-store';
import { takePlate } from '@/server/scenes/intake';
import { openScene, saveEntries } from '@/server/scenes/scene-repository';
import { seedDemo } from '@/server/scenes/seed';
import { openWorkspace } from '@/server/assets/workspace';
import { COLORANTS, matrixProfile } from '../../test/icc';
import { medianTime, report } from './time';

const SIZE = { width: 6000, height: 4000 };
const RUNS = 5;

const dataDir = await mkdtemp(join(tmpdir(), 'sundew-bench-'));
const space = openWorkspace(dataDir);

/** A photo of 24 megapixels with some texture, in a profile of a name. */
async function photo(profile: keyof typeof COLORANTS | 'sRGB'): Promise<Buffer> {
  const texture = new Uint8Array(3 * SIZE.width * SIZE.height);
  for (let i = 0; i < texture.length; i++)
    texture[i] = 128 + 60 * Math.sin(i / 999) + ((i * 2654435761) % 29);
  const picture = sharp(texture, { raw: { ...SIZE, channels: 3 } }).jpeg({ quality: 92 });
  if (profile === 'sRGB') return picture.toBuffer();
  const path = join(dataDir, 'wide.icc');
  await writeFile(path, matrixProfile(profile, COLORANTS[profile], 2.2));
  return picture.withIccProfile(path).toBuffer();
}

console.log(`\nTaking in a JPEG of ${SIZE.width} x ${SIZE.height}\n`);
for (const profile of ['sRGB', 'wide red'] as const) {
  const bytes = await photo(profile);
  const bare = await medianTime(RUNS, () => sharp(bytes, { ignoreIcc: true }).raw().toBuffer());
  report(`${profile}: libvips' bare decode`, bare);
  const received = await Promise.all(
    Array.from({ length: RUNS + 1 }, (_, i) =>
      receiveBytes(dataDir, Buffer.concat([bytes, Buffer.from([i])])),
    ),
  );
  const taken = await medianTime(RUNS, () => takePlate(space, received.pop()!));
  report(`${profile}: take in`, taken, { to: 'the decode', of: bare });
}

console.log('\nSaving one change of a demo scene\n');
await seedDemo(space, 'demo');
const { scene } = openScene(space, 'ferry-steps');
const text = JSON.stringify(scene);
const plain = await medianTime(31, () => JSON.stringify(JSON.parse(text)));
report('its document read and written as text', plain);
let base = 0;
const save = await medianTime(31, () => {
  const { change } = runCommand(scene, setDesk('Ambient', { ambient: -(base % 30) / 10 }));
  const entries = [{ id: randomUUID(), kind: 'do' as const, ...change }];
  base = saveEntries(space, 'ferry-steps', { version: SCENE_VERSION, base, entries });
});
report('a save', save, { to: 'that', of: plain });
await rm(dataDir, { recursive: true });
