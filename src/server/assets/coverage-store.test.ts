import { rm } from 'node:fs/promises';
import { unzipSync, zipSync } from 'fflate';
import sharp from 'sharp';
import { afterEach, beforeEach, expect, it } from 'vitest';
import { addMatte } from '@/core/scene/matte-commands';
import { runCommand } from '@/core/scene/command';
import type { Matte } from '@/core/scene/schema';
import {
  pictureBytes,
  receiveBytes,
  temporaryWorkspace,
  begunScene,
  sceneFileBytes,
} from '../../../test/workspace';
import { assetPath } from './asset-store';
import { loadCoverage, takeCoverage } from './coverage-store';
import { checkScene, openScene } from '../scenes/scene-repository';
import type { Workspace } from './workspace';

let space: Workspace;
let remove: () => Promise<void>;
beforeEach(async () => {
  ({ space, remove } = await temporaryWorkspace());
});
afterEach(() => remove());

const found = Uint8Array.from({ length: 60 * 40 }, (_, i) => (i * 7) % 256);

/** What the edge brush sends: grey, but written with three channels. */
const sent = () =>
  sharp(Buffer.from([...found].flatMap((value) => [value, value, value])), {
    raw: { width: 60, height: 40, channels: 3 },
  })
    .png()
    .toBuffer();

const brushed = (asset: string): Matte => ({
  id: 'm',
  name: 'Traveller',
  refine: 0,
  grow: 0,
  feather: 0,
  invert: false,
  passes: [{ id: 'p', join: 'add', kind: 'edge', strokes: [], asset }],
});

it('keeps what was found exactly, once', async () => {
  const { asset } = await takeCoverage(space, await receiveBytes(space, await sent()));
  expect(await loadCoverage(space.dataDir, asset)).toEqual({ width: 60, height: 40, data: found });
  expect(await takeCoverage(space, await receiveBytes(space, await sent()))).toEqual({ asset });
});

it.each([
  ['a JPEG', () => pictureBytes()],
  ['no picture', () => Promise.resolve(Buffer.from('hello'))],
  ['a PNG cut short', async () => (await sent()).subarray(0, 200)],
  [
    'a PNG of too many pixels',
    () =>
      sharp({ create: { width: 2400, height: 2000, channels: 3, background: '#000' } })
        .png()
        .toBuffer(),
  ],
])('refuses %s and forgets it', async (_name, bytes) => {
  const received = await receiveBytes(space, await bytes());
  await expect(takeCoverage(space, received)).rejects.toMatchObject({ status: 422, code: 'bad-coverage' });
  await expect(rm(received.path)).rejects.toThrow('ENOENT');
});

it('goes along in a scene file, and is missed when it does not', async () => {
  const id = await begunScene(space);
  const { asset } = await takeCoverage(space, await receiveBytes(space, await sent()));
  const open = openScene(space, id);
  const scene = runCommand(open.scene, addMatte(brushed(asset))).scene;
  const file = await sceneFileBytes(space, scene);
  const other = await temporaryWorkspace();
  try {
    const there = await begunScene(other.space, file, 'quay.sundew');
    expect(openScene(other.space, there).scene.mattes).toEqual(scene.mattes);
    expect((await loadCoverage(other.space.dataDir, asset)).data).toEqual(found);
  } finally {
    await other.remove();
  }
  const { [`mattes/${asset}.png`]: _gone, ...rest } = unzipSync(file);
  await expect(begunScene(space, zipSync(rest))).rejects.toThrow('lacks what an edge brush');
});

it('says what to do about a coverage that is not there', async () => {
  const id = await begunScene(space);
  const { scene } = openScene(space, id);
  const broken = runCommand(scene, addMatte(brushed('e'.repeat(64)))).scene;
  expect(() => checkScene(space.db, broken, scene)).toThrow('Stroke over it again');
  const { asset } = await takeCoverage(space, await receiveBytes(space, await sent()));
  expect(checkScene(space.db, runCommand(scene, addMatte(brushed(asset))).scene, scene).mattes).toHaveLength(
    1,
  );
  await rm(assetPath(space.dataDir, asset));
  await expect(loadCoverage(space.dataDir, asset)).rejects.toThrow('stroke over it again');
});
