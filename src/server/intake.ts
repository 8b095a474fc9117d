import { randomUUID } from 'node:crypto';
import { open, readFile, rm } from 'node:fs/promises';
import { eq } from 'drizzle-orm';
import { newScene } from '@/core/scene/new-scene';
import type { Scene } from '@/core/scene/schema';
import { assets, scenes } from '@/db/schema';
import { keepFile, receiveBytes, type ReceivedFile } from './asset-store';
import { openPlate, readLens, type PlateFacts } from './open-plate';
import { looksLikeSceneFile, readSceneFile } from './scene-file';
import { takeCoverage } from './coverage-store';
import { takeLut } from './lut-store';
import type { Workspace } from './workspace';

/**
 * Makes a received file a plate of the store. One that is there already is known by its hash and shared. Throws an
 * AppError, and forgets the file, when it cannot be one.
 */
export async function takePlate(
  { db, dataDir, plates }: Workspace,
  received: ReceivedFile,
): Promise<Omit<PlateFacts, 'mime'>> {
  const { hash, path, bytes } = received;
  const known = db.select().from(assets).where(eq(assets.hash, hash)).get();
  if (known?.mime.startsWith('image/')) {
    const lens = await readLens(path);
    await keepFile(dataDir, received);
    return { width: known.width, height: known.height, lens };
  }
  const plate = await openPlate(path, bytes).catch(async (error: unknown) => {
    await rm(path, { force: true });
    throw error;
  });
  await keepFile(dataDir, received);
  await plates.prime(hash, plate);
  const { mime, width, height } = plate.facts;
  db.insert(assets)
    .values({ hash, bytes, mime, width, height, createdAt: Date.now() })
    .onConflictDoNothing()
    .run();
  return plate.facts;
}

/** Begins a scene with a received file: a photo, or a scene file with its plate inside. Returns the scene's id. */
export async function beginScene(
  space: Workspace,
  received: ReceivedFile,
  fileName: string,
): Promise<string> {
  if (looksLikeSceneFile(await headOf(received.path))) return takeSceneFile(space, received);
  const { width, height, lens } = await takePlate(space, received);
  const scene = newScene(titleFrom(fileName), { asset: received.hash, width, height }, lens);
  return insertScene(space, randomUUID(), scene);
}

async function takeSceneFile(space: Workspace, received: ReceivedFile): Promise<string> {
  const bytes = await readFile(received.path);
  await rm(received.path, { force: true });
  const { scene, plate, lut, coverages } = readSceneFile(bytes);
  const receive = (part: Uint8Array) => receiveBytes(space.dataDir, part);
  if (lut) await takeLut(space, await receive(lut));
  for (const coverage of coverages) await takeCoverage(space, await receive(coverage));
  const plateFile = await receive(plate);
  const { width, height } = await takePlate(space, plateFile);
  return insertScene(space, randomUUID(), { ...scene, plate: { asset: plateFile.hash, width, height } });
}

async function headOf(path: string): Promise<Uint8Array> {
  const file = await open(path);
  const { buffer } = await file.read(new Uint8Array(4), 0, 4, 0).finally(() => file.close());
  return buffer;
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

/** A name for people from a name of a file. */
export function titleFrom(fileName: string): string {
  const words = fileName
    .replace(/^.*[\\/]/, '')
    .replace(/\.[^.]*$/, '')
    .replace(/[_\-\s]+/g, ' ')
    .replace(/[^\p{L}\p{N} .,'()]/gu, '')
    .trim()
    .slice(0, 80);
  return words ? words[0].toUpperCase() + words.slice(1) : 'Untitled';
}
