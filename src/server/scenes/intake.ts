import { randomUUID } from 'node:crypto';
import { rm } from 'node:fs/promises';
import { newScene } from '@/core/scene/new-scene';
import type { Scene } from '@/core/scene/schema';
import { scenes } from '@/db/schema';
import { findAsset, putAsset } from '../assets/asset-kinds';
import { keepFile, type ReceivedFile } from '../assets/asset-store';
import { decodeOnThread } from '../plates/decode-thread';
import { openPlate, readLens, type PlateFacts } from '../plates/open-plate';
import { readHead } from '../plates/read-head';
import { looksLikeSceneFile } from './scene-file';
import { pathsOf } from './scene-parts';
import { takeCoverage } from '../assets/coverage-store';
import { takeLut } from '../assets/lut-store';
import type { Workspace } from '../assets/workspace';

/** A plate that was taken in, and what a person should know of how it was read. */
export type TakenPlate = Omit<PlateFacts, 'mime'> & { note?: string };

/**
 * Makes a received file a plate of the store. One that is there already is known by its hash and shared. Throws an
 * AppError, and forgets the file, when it cannot be one. Plates are decoded one after the other: each may take much memory.
 */
export async function takePlate(
  { db, dataDir, plates, decoding }: Workspace,
  received: ReceivedFile,
): Promise<TakenPlate> {
  const { hash, path, bytes } = received;
  const known = findAsset(db, 'plate', hash);
  if (known) {
    const lens = await readLens(path);
    await keepFile(dataDir, received);
    return { width: known.width, height: known.height, lens };
  }
  try {
    return await decoding.run(async () => {
      const { note, ...plate } = await openPlate(path, bytes);
      await keepFile(dataDir, received);
      await plates.prime(hash, plate);
      const { mime, width, height, lens } = plate.facts;
      putAsset(db, { hash, bytes, mime, width, height });
      return { width, height, lens, note };
    });
  } catch (error) {
    await rm(path, { force: true });
    throw error;
  }
}

/** Makes a received file a picture of a sky: whatever a plate could be. Throws an AppError. */
export async function takeSky(
  space: Workspace,
  received: ReceivedFile,
): Promise<{ asset: string; width: number; height: number; note?: string }> {
  const { width, height, note } = await takePlate(space, received);
  return { asset: received.hash, width, height, note };
}

/** A scene that was begun. */
export interface BegunScene {
  id: string;
  note?: string;
}

/** Begins a scene with a received file: a photo, or a scene file with its plate inside. */
export async function beginScene(
  space: Workspace,
  received: ReceivedFile,
  fileName: string,
): Promise<BegunScene> {
  const id = randomUUID();
  if (looksLikeSceneFile(await readHead(received.path, 4))) {
    const { scene, note } = await takeSceneFile(space, received.path).finally(() =>
      rm(received.path, { force: true }),
    );
    return { id: insertScene(space, id, scene), note };
  }
  const { width, height, lens, note } = await takePlate(space, received);
  space.plates.getReady(received.hash);
  const scene = newScene(titleFrom(fileName), { asset: received.hash, width, height }, lens);
  return { id: insertScene(space, id, scene), note };
}

/** Takes a scene file in: all that it holds goes to the store, and what comes back is its document. Throws an AppError. */
export async function takeSceneFile(
  space: Workspace,
  path: string,
): Promise<{ scene: Scene; note?: string }> {
  const parts = await decodeOnThread('unpack', { path, dataDir: space.dataDir });
  try {
    const { scene, plate, lut, coverages, placed, sky } = parts;
    if (lut) await takeLut(space, lut);
    for (const coverage of coverages) await takeCoverage(space, coverage);
    if (sky) await takePlate(space, sky);
    for (const picture of placed) await takePlate(space, picture);
    const { width, height, note } = await takePlate(space, plate);
    return { scene: { ...scene, plate: { asset: plate.hash, width, height } }, note };
  } finally {
    // What was kept has moved to the store.
    await Promise.all(pathsOf(parts).map((left) => rm(left, { force: true })));
  }
}

/** Puts a scene in at revision 0. Its plate must be in the store. */
export function insertScene({ db }: Workspace, id: string, scene: Scene): string {
  const now = Date.now();
  const { title, plate } = scene;
  db.insert(scenes)
    .values({ id, title, plate: plate.asset, document: scene, revision: 0, createdAt: now, updatedAt: now })
    .run();
  return id;
}

/** Most characters of a title. */
const MOST_TITLE = 80;

/** A name for people from a name of a file. */
export function titleFrom(fileName: string): string {
  const words = fileName
    .replace(/^.*[\\/]/, '')
    .replace(/\.[^.]*$/, '')
    .replace(/[_\-\s]+/g, ' ')
    .replace(/[^\p{L}\p{N} .,'()]/gu, '')
    .trim();
  // A first letter may become two, and half a letter is none.
  const title = [...(words ? words[0].toUpperCase() + words.slice(1) : 'Untitled')];
  while (title.join('').length > MOST_TITLE) title.pop();
  return title.join('').trim();
}
