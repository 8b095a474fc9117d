import { unzipSync, zipSync } from 'fflate';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { NOCTURNES } from '@/core/night/nocturnes';
import { startingNight } from '@/core/night/starting-night';
import { receiveBytes, temporaryWorkspace, begunScene, sceneFileBytes } from '../../../test/workspace';
import { loadLut, takeLut } from '../assets/lut-store';
import {
  deleteNocturne,
  keepNocturne,
  listNocturnes,
  openNocturne,
  takeNocturne,
  writeNocturne,
} from './nocturne-repository';
import { openScene, saveCopy } from './scene-repository';
import type { Workspace } from '../assets/workspace';

let space: Workspace;
let remove: () => Promise<void>;
beforeAll(async () => ({ space, remove } = await temporaryWorkspace()));
afterAll(() => remove());

const CUBE = 'TITLE "made up"\nLUT_1D_SIZE 2\n0 0 0.1\n0.9 0.9 1\n';
const takeCube = async (text = CUBE, into = space) =>
  takeLut(into, await receiveBytes(into, Buffer.from(text)));
const withLut = async () => ({
  ...startingNight(0.5),
  lut: { asset: (await takeCube()).asset, name: 'made up', strength: 0.5 },
});

describe('look-up tables', () => {
  it('are kept once and read again', async () => {
    const { asset, size, dimensions } = await takeCube();
    expect([size, dimensions]).toEqual([2, 1]);
    expect((await takeCube()).asset).toBe(asset);
    expect((await loadLut(space.dataDir, asset)).title).toBe('made up');
  });

  it('are refused with the line at fault', async () => {
    await expect(takeCube('LUT_3D_SIZE 2\n0 0 0\n0 0')).rejects.toMatchObject({
      status: 422,
      message: expect.stringContaining('Line 3') as string,
    });
    await expect(loadLut(space.dataDir, 'f'.repeat(64))).rejects.toMatchObject({ status: 404 });
  });

  it('travel in the scene file, and a scene file that lacks its own is refused', async () => {
    const id = await begunScene(space);
    const open = openScene(space, id);
    const scene = { ...open.scene, night: await withLut() };
    const file = await sceneFileBytes(space, scene);
    const other = await temporaryWorkspace();
    const there = await begunScene(other.space, file, 'quay.sundew');
    const { lut } = openScene(other.space, there).scene.night;
    expect((await loadLut(other.space.dataDir, lut!.asset)).size).toBe(2);
    await other.remove();
    const lacking = {
      ...scene,
      night: { ...scene.night, lut: { ...scene.night.lut, asset: 'e'.repeat(64) } },
    };
    expect(() => saveCopy(space, id, lacking)).toThrow('look-up table is not here');
    const { 'lut.cube': _gone, ...rest } = unzipSync(file);
    await expect(begunScene(space, zipSync(rest))).rejects.toThrow('lacks the look-up table');
  });
});

describe('nocturnes', () => {
  it('are kept, opened beside our own, and forgotten', () => {
    const night = { ...startingNight(0.3), exposure: -1.5 };
    const { id } = keepNocturne(space, 'Market eve', night);
    expect(listNocturnes(space)).toContainEqual({ id, name: 'Market eve', night });
    expect(openNocturne(space, NOCTURNES[0].id)).toEqual(NOCTURNES[0]);
    deleteNocturne(space, id);
    expect(() => openNocturne(space, id)).toThrow('not here');
    expect(() => deleteNocturne(space, id)).toThrow('not here');
  });

  it('go out as a file and come in elsewhere, look-up table and all', async () => {
    const night = await withLut();
    const file = await writeNocturne(space, keepNocturne(space, 'Cold quay', night).id);
    const other = await temporaryWorkspace();
    const taken = await takeNocturne(other.space, JSON.stringify(file));
    expect(taken).toMatchObject({ name: 'Cold quay', night });
    expect((await loadLut(other.space.dataDir, taken.night.lut!.asset)).size).toBe(2);
    await other.remove();
  });

  it.each([
    ['no JSON', () => 'night', 'not a Sundew nocturne'],
    ['another file', () => '{"format":"sundew-scene"}', 'not a Sundew nocturne'],
    ['a newer one', () => '{"format":"sundew-nocturne","version":99}', 'newer Sundew'],
    [
      'a broken one',
      () =>
        JSON.stringify({
          format: 'sundew-nocturne',
          version: 3,
          name: 'x',
          night: { ...startingNight(0.5), exposure: 99 },
        }),
      'night.exposure',
    ],
    [
      'one without its table',
      () =>
        JSON.stringify({
          format: 'sundew-nocturne',
          version: 3,
          name: 'x',
          night: { ...startingNight(0.5), lut: { asset: 'a'.repeat(64), name: 'gone', strength: 1 } },
        }),
      'lacks the look-up table',
    ],
  ])('are refused when the file holds %s', async (_what, text, reason) => {
    await expect(takeNocturne(space, text())).rejects.toMatchObject({
      status: 422,
      message: expect.stringContaining(reason) as string,
    });
  });
});
