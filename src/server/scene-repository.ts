import { randomUUID } from 'node:crypto';
import { desc, eq } from 'drizzle-orm';
import { framedSize } from '@/core/frame/frame';
import { patchScene } from '@/core/scene/command';
import type { LogEntry } from '@/core/scene/history';
import type { OpenScene, SceneSummary } from '@/core/scene/opened-scene';
import { parseScene, SceneFormatError } from '@/core/scene/parse-scene';
import { upgradeScene } from '@/core/scene/upgrade';
import type { Scene } from '@/core/scene/schema';
import { revisions, scenes } from '@/db/schema';
import { AppError } from './app-error';
import { requireCoverages } from './coverage-store';
import { insertScene } from './intake';
import { LIMITS } from './limits';
import { requireLut } from './lut-store';
import type { Workspace } from './workspace';

type Db = Workspace['db'];

function findRow(db: Pick<Db, 'select'>, id: string) {
  const row = db.select().from(scenes).where(eq(scenes.id, id)).get();
  if (!row) throw new AppError(404, 'no-scene', 'This scene is not here any more. Go back to your scenes.');
  return { ...row, document: upgradeScene(row.document) };
}

/** Whether a scene is there. */
export function hasScene({ db }: Workspace, id: string): boolean {
  return db.select({ id: scenes.id }).from(scenes).where(eq(scenes.id, id)).get() !== undefined;
}

/** All scenes, the latest changed first. */
export function listScenes({ db }: Workspace): SceneSummary[] {
  return db
    .select()
    .from(scenes)
    .orderBy(desc(scenes.updatedAt), scenes.title)
    .all()
    .map(({ id, title, revision, updatedAt, document }) => ({
      id,
      title,
      revision,
      updatedAt,
      ...framedSize(document.plate, upgradeScene(document).frame),
      fixtures: document.fixtures.length,
    }));
}

/** One scene. Throws 404. */
export function openScene({ db }: Workspace, id: string): OpenScene {
  const row = findRow(db, id);
  const log = db
    .select()
    .from(revisions)
    .where(eq(revisions.sceneId, id))
    .orderBy(desc(revisions.number))
    .limit(LIMITS.logEntries)
    .all()
    .reverse()
    .map(({ entryId, kind, label, patches, inverse }) => ({ id: entryId, kind, label, patches, inverse }));
  return { id, scene: row.document, revision: row.revision, log };
}

/**
 * Adds entries to a scene's log, all or none, in one transaction. Entries that are there already count as saved, so that
 * a request may be sent again after an answer was lost. Throws 409 with the newest revision when `base` is not it, and
 * 422 when the result would not be a scene.
 */
export function saveEntries({ db }: Workspace, id: string, base: number, entries: LogEntry[]): number {
  return db.transaction((tx) => {
    const row = findRow(tx, id);
    const known = new Set(
      tx
        .select({ entryId: revisions.entryId })
        .from(revisions)
        .where(eq(revisions.sceneId, id))
        .all()
        .map(({ entryId }) => entryId),
    );
    const fresh = entries.filter((entry) => !known.has(entry.id));
    if (base + entries.length - fresh.length !== row.revision) {
      throw new AppError(409, 'stale', 'This scene was changed in another window.', {
        revision: row.revision,
      });
    }
    if (fresh.length === 0) return row.revision;
    const document = fresh.reduce(applyEntry, row.document);
    const checked = checkScene(tx, document, row.document);
    const now = Date.now();
    fresh.forEach(({ id: entryId, kind, label, patches, inverse }, i) => {
      const number = row.revision + i + 1;
      tx.insert(revisions)
        .values({ sceneId: id, number, entryId, kind, label, patches, inverse, createdAt: now })
        .run();
    });
    const revision = row.revision + fresh.length;
    tx.update(scenes)
      .set({ document: checked, title: checked.title, revision, updatedAt: now })
      .where(eq(scenes.id, id))
      .run();
    return revision;
  });
}

function applyEntry(scene: Scene, entry: LogEntry): Scene {
  try {
    return patchScene(scene, entry.patches);
  } catch {
    throw new AppError(422, 'bad-patch', `The change "${entry.label}" does not fit this scene.`);
  }
}

/** A document as a scene that may stand in for another of the same plate. Throws 422. */
export function checkScene(db: Pick<Db, 'select'>, document: unknown, before: Scene): Scene {
  try {
    const scene = parseScene(document);
    if (JSON.stringify(scene.plate) !== JSON.stringify(before.plate)) {
      throw new AppError(422, 'plate-fixed', 'A change may not put another plate under a scene.');
    }
    requireLut(db, scene.night);
    requireCoverages(db, scene);
    return scene;
  } catch (error) {
    if (error instanceof SceneFormatError) throw new AppError(422, 'bad-scene', error.message);
    throw error;
  }
}

/** Keeps a document as a scene of its own beside the one that it came from. Returns the new id. */
export function saveCopy(space: Workspace, id: string, document: unknown): string {
  const row = findRow(space.db, id);
  const scene = checkScene(space.db, document, row.document);
  const title = `${scene.title.slice(0, 70)} (copy)`;
  return insertScene(space, randomUUID(), { ...scene, title });
}

/** Takes a scene and its log away. The plate's file stays: other scenes may stand on it. */
export function deleteScene({ db }: Workspace, id: string): void {
  findRow(db, id);
  db.delete(scenes).where(eq(scenes.id, id)).run();
}
