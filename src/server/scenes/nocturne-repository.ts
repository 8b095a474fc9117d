import { randomUUID } from 'node:crypto';
import { asc, eq } from 'drizzle-orm';
import { findNocturne, type Nocturne } from '@/core/night/nocturnes';
import { parseJson } from '@/core/scene/parse-json';
import { parseNocturne, SceneFormatError, type NocturneFile } from '@/core/scene/parse-scene';
import { SCENE_VERSION, type Night } from '@/core/scene/schema';
import { upgradeScene } from '@/core/scene/upgrade';
import { nocturnes } from '@/db/schema';
import { AppError } from '../http/app-error';
import { receiveBytes } from '../assets/asset-store';
import { LIMITS } from '../http/limits';
import { lutBytes, requireLut, takeLut } from '../assets/lut-store';
import type { Workspace } from '../assets/workspace';

type Row = typeof nocturnes.$inferSelect;

const asNocturne = ({ id, name, version, night }: Row): Nocturne => ({
  id,
  name,
  night: upgradeScene({ version, night }).night,
});

/** The nights that were kept, the oldest first. */
export function listNocturnes({ db }: Workspace): Nocturne[] {
  return db
    .select()
    .from(nocturnes)
    .orderBy(asc(nocturnes.createdAt), asc(nocturnes.name))
    .all()
    .map(asNocturne);
}

/** A nocturne of ours, or one that was kept. Throws 404. */
export function openNocturne({ db }: Workspace, id: string): Nocturne {
  const ours = findNocturne(id);
  if (ours) return ours;
  const row = db.select().from(nocturnes).where(eq(nocturnes.id, id)).get();
  if (!row) throw new AppError(404, 'no-nocturne', 'This nocturne is not here any more.');
  return asNocturne(row);
}

/** Keeps a night under a name. */
export function keepNocturne({ db }: Workspace, name: string, night: Night): Nocturne {
  requireLut(db, night);
  const id = randomUUID();
  db.insert(nocturnes).values({ id, name, version: SCENE_VERSION, night, createdAt: Date.now() }).run();
  return { id, name, night };
}

export function deleteNocturne(space: Workspace, id: string): void {
  const { changes } = space.db.delete(nocturnes).where(eq(nocturnes.id, id)).run();
  if (changes === 0) throw new AppError(404, 'no-nocturne', 'This nocturne is not here any more.');
}

/** A nocturne as a file, with its look-up table inside. */
export async function writeNocturne(space: Workspace, id: string): Promise<NocturneFile> {
  const { name, night } = openNocturne(space, id);
  const cube = night.lut
    ? new TextDecoder().decode(await lutBytes(space.dataDir, night.lut.asset))
    : undefined;
  return { format: 'sundew-nocturne', version: SCENE_VERSION, name, night, cube };
}

/** Keeps the nocturne of a file. Throws 422 with the reason when it holds none. */
export async function takeNocturne(space: Workspace, text: string): Promise<Nocturne> {
  const { name, night, cube } = readNocturne(text);
  if (!night.lut) return keepNocturne(space, name, night);
  if (cube === undefined) {
    throw new AppError(422, 'no-lut', 'The nocturne lacks the look-up table that it uses.');
  }
  const { asset } = await takeLut(space, await receiveBytes(space.dataDir, Buffer.from(cube)));
  return keepNocturne(space, name, { ...night, lut: { ...night.lut, asset } });
}

function readNocturne(text: string): NocturneFile {
  try {
    return parseNocturne(parseJson(text, LIMITS.jsonDepth));
  } catch (error) {
    const reason = error instanceof SceneFormatError ? error.message : 'This file is not a Sundew nocturne.';
    throw new AppError(422, 'bad-nocturne', reason);
  }
}
