import { index, integer, primaryKey, sqliteTable, text, uniqueIndex } from 'drizzle-orm/sqlite-core';
import type { Patch } from 'immer';
import type { OutputOrder } from '@/core/output/output-order';
import type { Night, Scene } from '@/core/scene/schema';

/** Files of the asset store, named by their SHA-256. */
export const assets = sqliteTable('assets', {
  hash: text('hash').primaryKey(),
  bytes: integer('bytes').notNull(),
  mime: text('mime').notNull(),
  width: integer('width').notNull(),
  height: integer('height').notNull(),
  createdAt: integer('created_at').notNull(),
});

/** One row a scene: its newest document beside the revision that it stands at. */
export const scenes = sqliteTable('scenes', {
  id: text('id').primaryKey(),
  title: text('title').notNull(),
  plate: text('plate')
    .notNull()
    .references(() => assets.hash),
  document: text('document', { mode: 'json' }).$type<Scene>().notNull(),
  revision: integer('revision').notNull(),
  createdAt: integer('created_at').notNull(),
  updatedAt: integer('updated_at').notNull(),
});

/** The log of a scene. It only grows: an undo is an entry too. */
export const revisions = sqliteTable(
  'revisions',
  {
    sceneId: text('scene_id')
      .notNull()
      .references(() => scenes.id, { onDelete: 'cascade' }),
    number: integer('number').notNull(),
    entryId: text('entry_id').notNull(),
    kind: text('kind', { enum: ['do', 'undo', 'redo'] }).notNull(),
    label: text('label').notNull(),
    patches: text('patches', { mode: 'json' }).$type<Patch[]>().notNull(),
    inverse: text('inverse', { mode: 'json' }).$type<Patch[]>().notNull(),
    /** Version of the scene format that the patches are of; 0 for what is older than this column. */
    version: integer('version').notNull().default(0),
    createdAt: integer('created_at').notNull(),
  },
  (table) => [
    uniqueIndex('revisions_number').on(table.sceneId, table.number),
    uniqueIndex('revisions_entry').on(table.sceneId, table.entryId),
    index('revisions_scene').on(table.sceneId),
  ],
);

/** Files that a window on a scene took in: it may read them, though what it saved does not refer to them yet. */
export const offers = sqliteTable(
  'offers',
  {
    sceneId: text('scene_id')
      .notNull()
      .references(() => scenes.id, { onDelete: 'cascade' }),
    hash: text('hash').notNull(),
    createdAt: integer('created_at').notNull(),
  },
  (table) => [primaryKey({ columns: [table.sceneId, table.hash] })],
);

/** Nights that a person kept. */
export const nocturnes = sqliteTable('nocturnes', {
  id: text('id').primaryKey(),
  name: text('name').notNull(),
  /** Version of the scene format that `night` is of. */
  version: integer('version').notNull(),
  night: text('night', { mode: 'json' }).$type<Night>().notNull(),
  createdAt: integer('created_at').notNull(),
});

/** Named moments of a scene: a document as it was when it was named. */
export const moments = sqliteTable(
  'moments',
  {
    id: text('id').primaryKey(),
    sceneId: text('scene_id')
      .notNull()
      .references(() => scenes.id, { onDelete: 'cascade' }),
    name: text('name').notNull(),
    document: text('document', { mode: 'json' }).$type<Scene>().notNull(),
    createdAt: integer('created_at').notNull(),
  },
  (table) => [index('moments_scene').on(table.sceneId)],
);

/** Demo scenes that were put in once: one that was deleted stays deleted. */
export const seeds = sqliteTable('seeds', {
  sceneId: text('scene_id').primaryKey(),
});

/** Pictures on their way out. One that a stopped server left half made begins anew. */
export const outputs = sqliteTable('outputs', {
  id: text('id').primaryKey(),
  /** All that it is made from, until it has ended. */
  order: text('order', { mode: 'json' }).$type<OutputOrder>(),
  /** Version of the scene format that its scenes are of. */
  version: integer('version').notNull(),
  state: text('state', { enum: ['waiting', 'running', 'done', 'failed', 'cancelled'] }).notNull(),
  fileName: text('file_name').notNull(),
  mime: text('mime').notNull(),
  bytes: integer('bytes'),
  /** Why it failed, or what is missing in it. */
  reason: text('reason'),
  createdAt: integer('created_at').notNull(),
});
