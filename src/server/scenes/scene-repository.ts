import { randomUUID } from 'node:crypto';
import { and, desc, eq, inArray, sql } from 'drizzle-orm';
import { framedSize } from '@/core/frame/frame';
import { checkedChange } from '@/core/scene/check-change';
import { patchScene } from '@/core/scene/command';
import type { LogEntry } from '@/core/scene/history';
import type { OpenScene, SceneSummary } from '@/core/scene/opened-scene';
import { parseScene, SceneFormatError } from '@/core/scene/parse-scene';
import { upgradeScene } from '@/core/scene/upgrade';
import { SCENE_VERSION, type Scene } from '@/core/scene/schema';
import { moments, revisions, scenes } from '@/db/schema';
import { AppError } from '../http/app-error';
import { requireCoverages } from '../assets/coverage-store';
import { insertScene } from './intake';
import { LIMITS } from '../http/limits';
import { placedAssets } from './scene-file-names';
import { requireAsset } from '../assets/asset-kinds';
import { requireLut } from '../assets/lut-store';
import type { Workspace } from '../assets/workspace';

type Db = Workspace['db'];

export const noScene = () =>
  new AppError(404, 'no-scene', 'This scene is not here any more. Go back to your scenes.');

function findRow(db: Pick<Db, 'select'>, id: string) {
  const row = db.select().from(scenes).where(eq(scenes.id, id)).get();
  if (!row) throw noScene();
  return { ...row, document: upgradeScene(row.document), stored: row.document };
}

/** Whether a scene is there. */
export function hasScene({ db }: Workspace, id: string): boolean {
  return db.select({ id: scenes.id }).from(scenes).where(eq(scenes.id, id)).get() !== undefined;
}

/** A part of the document, read without the rest: documents can be large. */
const partOf = <T>(path: string) => sql<T>`json_extract(${scenes.document}, ${path})`;

/** All scenes, the latest changed first. */
export function listScenes({ db }: Workspace): SceneSummary[] {
  return db
    .select({
      ...{ id: scenes.id, title: scenes.title, revision: scenes.revision, updatedAt: scenes.updatedAt },
      version: partOf<number>('$.version'),
      plate: partOf<string>('$.plate'),
      frame: partOf<string | null>('$.frame'),
      fixtures: sql<number>`json_array_length(${scenes.document}, '$.fixtures')`,
    })
    .from(scenes)
    .orderBy(desc(scenes.updatedAt), scenes.title)
    .all()
    .map(({ version, plate, frame, ...summary }) => {
      const parts = JSON.parse(`{"version":${version},"plate":${plate},"frame":${frame}}`) as Scene;
      return { ...summary, ...framedSize(parts.plate, upgradeScene(parts).frame) };
    });
}

/** The entries of a scene's log whose patches fit its document: those of its own version. An upgrade cuts the log. */
export const inVersion = (id: string) => and(eq(revisions.sceneId, id), eq(revisions.version, SCENE_VERSION));

/** One scene. Throws 404. */
export function openScene({ db }: Workspace, id: string): OpenScene {
  const row = findRow(db, id);
  const log = db
    .select()
    .from(revisions)
    .where(inVersion(id))
    .orderBy(desc(revisions.number))
    .limit(LIMITS.logEntries)
    .all()
    .reverse()
    .map(({ entryId, kind, label, patches, inverse }) => ({ id: entryId, kind, label, patches, inverse }));
  return { id, scene: row.document, revision: row.revision, log };
}

/** A save: entries of the log, in order, the version of scenes they are of, and the revision that they build on. */
export interface Save {
  version: number;
  base: number;
  entries: LogEntry[];
}

/**
 * Adds entries to a scene's log, all or none, in one transaction. Entries that are there already, right after `base`, count as
 * saved, so that a request may be sent again after an answer was lost. Returns the revision after the last entry. Throws 409
 * when `base` is not the newest revision or the patches are of another version, and 422 when the result would not be a scene.
 */
export function saveEntries({ db }: Workspace, id: string, { version, base, entries }: Save): number {
  if (version !== SCENE_VERSION) throw outdated();
  return db.transaction((tx) => {
    const row = findRow(tx, id);
    const known = knownEntries(tx, id, base, entries);
    if (known === entries.length) return base + known;
    if (base + known !== row.revision) {
      throw stale({ revision: row.revision });
    }
    const fresh = entries.slice(known);
    const checked = checkAssets(
      tx,
      told422(() => checkedChange(fresh.reduce(applyEntry, row.document), row.document)),
      row.document,
    );
    if (row.stored.version !== SCENE_VERSION) keepBeforeUpgrade(tx, id, row.stored);
    writeEntries(tx, id, row.revision, fresh);
    const revision = row.revision + fresh.length;
    tx.update(scenes)
      .set({ document: checked, title: checked.title, revision, updatedAt: Date.now() })
      .where(eq(scenes.id, id))
      .run();
    return revision;
  });
}

const stale = (detail?: { revision: number }) =>
  new AppError(409, 'stale', 'This scene was changed in another window.', detail);

const outdated = () => new AppError(409, 'outdated', 'Sundew was updated since this window was opened.');

/** How many of some entries are in the log already, right after `base` and in their order. Throws 409 for any other place. */
function knownEntries(db: Pick<Db, 'select'>, id: string, base: number, entries: LogEntry[]): number {
  const rows = db
    .select({ entryId: revisions.entryId, number: revisions.number })
    .from(revisions)
    .where(
      and(
        eq(revisions.sceneId, id),
        inArray(
          revisions.entryId,
          entries.map((entry) => entry.id),
        ),
      ),
    )
    .all();
  const numbers = new Map(rows.map(({ entryId, number }) => [entryId, number]));
  const inPlace = entries.slice(0, rows.length).every((entry, i) => numbers.get(entry.id) === base + 1 + i);
  if (!inPlace) throw stale();
  return rows.length;
}

function writeEntries(db: Pick<Db, 'insert'>, sceneId: string, after: number, entries: LogEntry[]): void {
  const createdAt = Date.now();
  entries.forEach(({ id: entryId, kind, label, patches, inverse }, i) => {
    const number = after + i + 1;
    db.insert(revisions)
      .values({ sceneId, number, entryId, kind, label, patches, inverse, version: SCENE_VERSION, createdAt })
      .run();
  });
}

/** The log is cut where a scene is upgraded: how it was before stays as a moment. */
function keepBeforeUpgrade(db: Pick<Db, 'insert'>, sceneId: string, document: Scene): void {
  db.insert(moments)
    .values({ id: randomUUID(), sceneId, name: 'Before Sundew was updated', document, createdAt: Date.now() })
    .run();
}

function applyEntry(scene: Scene, entry: LogEntry): Scene {
  try {
    return patchScene(scene, entry.patches);
  } catch {
    throw new AppError(422, 'bad-patch', `The change "${entry.label}" does not fit this scene.`);
  }
}

/** A document as a scene that may stand in for another of the same plate. Throws 422, or 413. */
export const checkScene = (db: Pick<Db, 'select'>, document: unknown, before: Scene): Scene =>
  checkAssets(
    db,
    told422(() => parseScene(document)),
    before,
  );

/** What a format is found to be wrong in, as a fault that a person is told of. */
function told422(read: () => Scene): Scene {
  try {
    return read();
  } catch (error) {
    if (error instanceof SceneFormatError) throw new AppError(422, 'bad-scene', error.message);
    throw error;
  }
}

/** Checks of a sound scene that it may stand in for another, and that all it refers to is here. Throws 422, or 413. */
function checkAssets(db: Pick<Db, 'select'>, scene: Scene, before: Scene): Scene {
  checkBytes(scene);
  if (JSON.stringify(scene.plate) !== JSON.stringify(before.plate)) {
    throw new AppError(422, 'plate-fixed', 'A change may not put another plate under a scene.');
  }
  requireLut(db, scene.night);
  requireCoverages(db, scene);
  const { picture } = scene.sky;
  if (picture)
    requireAsset(db, 'plate', picture.asset, 'The picture of the sky is not here. Choose its file again.');
  for (const asset of placedAssets(scene))
    requireAsset(db, 'plate', asset, 'A placed picture is not here. Choose its file again.');
  return scene;
}

/** Checks that a document is not larger than scenes may be. Throws 413. */
function checkBytes(scene: Scene): void {
  const bytes = Buffer.byteLength(JSON.stringify(scene));
  if (bytes <= LIMITS.documentBytes) return;
  const [size, most] = [bytes, LIMITS.documentBytes].map((n) => `${Math.ceil(n / 2 ** 20)} MB`);
  throw new AppError(
    413,
    'scene-too-large',
    `The scene would have ${size}; one may have ${most}. Remove strokes of a matte.`,
  );
}

/** Keeps a document as a scene of its own beside the one that it came from. Returns the new id. */
export function saveCopy(space: Workspace, id: string, document: unknown): string {
  const row = findRow(space.db, id);
  const scene = checkScene(space.db, document, row.document);
  const title = `${scene.title.slice(0, 73).trim()} (copy)`;
  return insertScene(space, randomUUID(), { ...scene, title });
}

/** Takes a scene and its log away. The plate's file stays: other scenes may stand on it. */
export function deleteScene({ db }: Workspace, id: string): void {
  findRow(db, id);
  db.delete(scenes).where(eq(scenes.id, id)).run();
}
