import { randomUUID } from 'node:crypto';
import { and, asc, eq } from 'drizzle-orm';
import { patchScene } from '@/core/scene/command';
import type { Scene } from '@/core/scene/schema';
import { upgradeScene } from '@/core/scene/upgrade';
import { moments, revisions } from '@/db/schema';
import { AppError } from '../http/app-error';
import { checkScene, inVersion, openScene } from './scene-repository';
import type { Workspace } from '../assets/workspace';

/** A named moment as the interface lists it. */
export interface MomentInfo {
  id: string;
  name: string;
}

const gone = () => new AppError(404, 'no-moment', 'This moment is not here any more.');

/** The named moments of a scene, the oldest first. */
export function listMoments({ db }: Workspace, sceneId: string): MomentInfo[] {
  return db
    .select({ id: moments.id, name: moments.name })
    .from(moments)
    .where(eq(moments.sceneId, sceneId))
    .orderBy(asc(moments.createdAt))
    .all();
}

/** Keeps a document of a scene under a name. */
export function nameMoment(space: Workspace, sceneId: string, name: string, document: unknown): MomentInfo {
  const scene = checkScene(space.db, document, openScene(space, sceneId).scene);
  const id = randomUUID();
  space.db.insert(moments).values({ id, sceneId, name, document: scene, createdAt: Date.now() }).run();
  return { id, name };
}

const chosen = (sceneId: string, id: string) => and(eq(moments.sceneId, sceneId), eq(moments.id, id));

/** The document of a named moment. Throws 404. */
export function momentScene({ db }: Workspace, sceneId: string, id: string): Scene {
  const row = db.select().from(moments).where(chosen(sceneId, id)).get();
  if (!row) throw gone();
  return upgradeScene(row.document);
}

export function forgetMoment({ db }: Workspace, sceneId: string, id: string): void {
  if (db.delete(moments).where(chosen(sceneId, id)).run().changes === 0) throw gone();
}

/** A scene as it was just after one entry of its log. Throws 404 for an entry that is not there. */
export function sceneAfter(space: Workspace, sceneId: string, entryId: string): Scene {
  const { scene } = openScene(space, sceneId);
  const rows = space.db
    .select()
    .from(revisions)
    .where(inVersion(sceneId))
    .orderBy(asc(revisions.number))
    .all();
  const at = rows.findIndex((row) => row.entryId === entryId);
  if (at < 0) throw gone();
  return rows.slice(at + 1).reduceRight((document, { inverse }) => patchScene(document, inverse), scene);
}
