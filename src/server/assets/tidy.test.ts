import { existsSync } from 'node:fs';
import { mkdir, readdir, utimes, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import sharp from 'sharp';
import { afterEach, beforeEach, expect, it } from 'vitest';
import { addMatte } from '@/core/scene/matte-commands';
import { runCommand } from '@/core/scene/command';
import { wholeRegion } from '@/core/plane/region';
import { SCENE_VERSION } from '@/core/scene/schema';
import { servedSizes } from '@/engine/sizes';
import { half } from '../../../test/spy-renderer';
import { begunScene, pictureBytes, receiveBytes, temporaryWorkspace } from '../../../test/workspace';
import { assetPath } from './asset-store';
import { takeCoverage } from './coverage-store';
import { nameMoment } from '../scenes/moment-repository';
import { offerAsset } from './scene-assets';
import { deleteScene, openScene, saveEntries } from '../scenes/scene-repository';
import { tidy } from './tidy';
import type { Workspace } from './workspace';

let space: Workspace;
let remove: () => Promise<void>;
beforeEach(async () => ({ space, remove } = await temporaryWorkspace()));
afterEach(() => remove());

const HOURS = 3_600_000;
const later = (hours: number) => tidy(space, Date.now() + hours * HOURS);
const exists = (hash: string) => existsSync(assetPath(space.dataDir, hash));
const plateOf = (id: string) => openScene(space, id).scene.plate;

async function coverage(shade: number): Promise<string> {
  const png = await sharp({
    create: { width: 8, height: 8, channels: 3, background: { r: shade, g: 0, b: 0 } },
  })
    .png()
    .toBuffer();
  return (await takeCoverage(space, await receiveBytes(space, png))).asset;
}

/** A file of a folder, last used some hours ago. */
async function put(folder: string, name: string, hoursAgo: number, bytes = 10): Promise<void> {
  await mkdir(join(space.dataDir, folder), { recursive: true });
  const path = join(space.dataDir, folder, name);
  await writeFile(path, new Uint8Array(bytes));
  const used = new Date(Date.now() - hoursAgo * HOURS);
  await utimes(path, used, used);
}

it('takes the plate of a deleted scene away once it has rested, and never one that another scene stands on', async () => {
  const bytes = await pictureBytes(90, 70);
  const [gone, stays] = [await begunScene(space, bytes), await begunScene(space, bytes)];
  const alone = await begunScene(space, await pictureBytes(80, 70));
  const [shared, own] = [plateOf(stays).asset, plateOf(alone).asset];
  deleteScene(space, gone);
  deleteScene(space, alone);
  // What was used a moment ago may be in a job's hands.
  expect((await later(0)).assets).toBe(0);
  const freed = await later(2);
  expect(freed).toMatchObject({ assets: 1 });
  expect(freed.bytes).toBeGreaterThan(100);
  expect([exists(shared), exists(own)]).toEqual([true, false]);
  // A photo that was collected can be dropped in again.
  expect(exists(plateOf(await begunScene(space, await pictureBytes(80, 70))).asset)).toBe(true);
});

it('keeps what is only in the log, in a moment, or in a window that has not saved it yet', async () => {
  const id = await begunScene(space);
  const { scene } = openScene(space, id);
  const [logged, named, stray] = [await coverage(10), await coverage(20), await coverage(40)];
  const withMatte = (asset: string, matteId: string) =>
    runCommand(
      openScene(space, id).scene,
      addMatte({
        ...half,
        id: matteId,
        passes: [{ id: 'p', join: 'add', kind: 'edge', strokes: [], asset }],
      }),
    );
  const { change } = withMatte(logged, 'one');
  const entry = (n: number, patches: typeof change.patches) => ({
    id: `00000000-0000-4000-8000-00000000000${n}`,
    kind: 'do' as const,
    label: 'Matte',
    patches,
    inverse: [],
  });
  const save = (base: number, ...entries: ReturnType<typeof entry>[]) =>
    saveEntries(space, id, { version: SCENE_VERSION, base, entries });
  save(0, entry(1, change.patches));
  save(1, entry(2, [{ op: 'replace', path: ['mattes'], value: [] }]));
  nameMoment(space, id, 'With it', withMatte(named, 'two').scene);
  const png = await sharp({ create: { width: 8, height: 8, channels: 3, background: '#030303' } })
    .png()
    .toBuffer();
  const body = new Blob([new Uint8Array(png)]).stream();
  const { asset: offered } = await offerAsset(space, id, body, 1000, takeCoverage);
  expect(openScene(space, id).scene).toEqual(scene);
  await later(2);
  expect([logged, named, offered, stray].map(exists)).toEqual([true, true, true, false]);
  await later(24 * 15);
  expect([logged, named, offered].map(exists)).toEqual([true, true, false]);
});

it('takes away uploads that never ended, old outputs, and pictures of what is no more', async () => {
  const id = await begunScene(space);
  const { asset } = plateOf(id);
  await put('incoming', 'abandoned', 2);
  await put('incoming', 'under-way', 0);
  await put('outputs', 'old.png', 30);
  await put('thumbnails', `${id}-0.jpg`, 5);
  await put('thumbnails', `${id}-7.jpg`, 5);
  await put('thumbnails', `${asset}-0.5.jpg`, 5);
  await put('thumbnails', `entry-of-nobody.jpg`, 5);
  await put('derived', `${asset}-400x267.u16`, 5);
  await put('derived', `${'e'.repeat(64)}-400x267.u16`, 5);
  expect(await later(0)).toMatchObject({ incoming: 1, outputs: 1, thumbnails: 2, derived: 1 });
  expect(await readdir(join(space.dataDir, 'incoming'))).toEqual(['under-way']);
  expect((await readdir(join(space.dataDir, 'thumbnails'))).sort()).toEqual(
    [`${asset}-0.5.jpg`, `${id}-0.jpg`].sort(),
  );
});

it('keeps copies of plates only at sizes that are served', async () => {
  const bytes = await pictureBytes(900, 600);
  const { asset, ...size } = plateOf(await begunScene(space, bytes));
  expect(servedSizes(size).length).toBeLessThan(40);
  await space.plates.read(asset, wholeRegion(400, 267));
  await space.plates.read(asset, wholeRegion(411, 274));
  expect(await readdir(join(space.dataDir, 'derived'))).toEqual([`${asset}-400x267.u16`]);
});
