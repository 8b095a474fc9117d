import { readdir, rm, stat } from 'node:fs/promises';
import { join } from 'node:path';
import { setImmediate } from 'node:timers/promises';
import { eq, lt, sql } from 'drizzle-orm';
import { assets, offers, revisions, scenes } from '@/db/schema';
import { LIMITS } from '../http/limits';
import type { Workspace } from './workspace';

/** What was taken away, by what it was. */
export interface Freed {
  /** Uploads that never came to an end. */
  incoming: number;
  /** Photos, look-up tables and mattes that nothing refers to. */
  assets: number;
  /** Smaller copies and developed raw files. */
  derived: number;
  thumbnails: number;
  /** What was found in photos. */
  results: number;
  outputs: number;
  bytes: number;
}

/** A file that may be taken away. */
interface KeptFile {
  name: string;
  path: string;
  bytes: number;
  /** Milliseconds since 1970 at which it was made or last used. */
  used: number;
}

const HASH = /[0-9a-f]{64}/g;

/** The files of a folder, the longest unused first. A folder that is not there is empty. */
async function filesOf(folder: string): Promise<KeptFile[]> {
  const names = await readdir(folder).catch(() => []);
  const files = await Promise.all(
    names.map(async (name) => {
      const path = join(folder, name);
      const found = await stat(path).catch(() => undefined);
      return found?.isFile() ? [{ name, path, bytes: found.size, used: found.mtimeMs }] : [];
    }),
  );
  return files.flat().sort((a, b) => a.used - b.used);
}

/** Every column in which a hash may stand, and its table. */
const KEPT = [
  ['scenes', 'document'],
  ['revisions', 'patches'],
  ['revisions', 'inverse'],
  ['moments', 'document'],
  ['nocturnes', 'night'],
  ['offers', 'hash'],
] as const;

/** Rows that are read before other requests get their turn. */
const PAGE = 200;

/** All hashes that stand anywhere in what is kept: what they name is in use. Logs are long, so they are read page by page. */
async function hashesInUse({ db }: Workspace): Promise<Set<string>> {
  const found = new Set<string>();
  for (const [table, column] of KEPT) {
    let last = 0;
    for (;;) {
      const rows = db.all<{ at: number; kept: string }>(
        sql`select rowid as at, ${sql.identifier(column)} as kept from ${sql.identifier(table)}
          where rowid > ${last} order by rowid limit ${PAGE}`,
      );
      if (rows.length === 0) break;
      for (const { kept } of rows) for (const [hash] of kept.matchAll(HASH)) found.add(hash);
      last = rows[rows.length - 1].at;
      await setImmediate();
    }
  }
  return found;
}

/** Forgets an asset unless something refers to it by now. Says whether it is forgotten. */
function forgetAsset({ db }: Workspace, hash: string): boolean {
  return db.transaction(
    (tx) => {
      const isInUse = KEPT.some(
        ([table, column]) =>
          tx.get(
            sql`select 1 from ${sql.identifier(table)} where instr(${sql.identifier(column)}, ${hash}) > 0 limit 1`,
          ) !== undefined,
      );
      if (!isInUse) tx.delete(assets).where(eq(assets.hash, hash)).run();
      return !isInUse;
    },
    { behavior: 'immediate' },
  );
}

/** Whether a thumbnail still shows what is there. */
function createIsCurrent({ db }: Workspace, inUse: ReadonlySet<string>): (name: string) => boolean {
  const nights = db.select({ id: scenes.id, revision: scenes.revision }).from(scenes).all();
  const current = new Set(nights.map(({ id, revision }) => `${id}-${revision}.jpg`));
  const rows = db.select({ entryId: revisions.entryId }).from(revisions).all();
  const entries = new Set(rows.map(({ entryId }) => `entry-${entryId}.jpg`));
  const isDay = (name: string) => inUse.has(name.slice(0, 64));
  return (name) => current.has(name) || entries.has(name) || isDay(name);
}

/**
 * Takes away what nothing refers to and nobody has used for an hour, and of copies that can be made again the longest unused,
 * until the rest is within its budget. What a request or a job works with was used a moment ago. Safe at any time, also
 * beside a running server.
 */
export async function tidy(space: Workspace, now = Date.now()): Promise<Freed> {
  const { db, dataDir } = space;
  const freed: Freed = {
    incoming: 0,
    assets: 0,
    derived: 0,
    thumbnails: 0,
    results: 0,
    outputs: 0,
    bytes: 0,
  };
  const rested = now - 60_000 * LIMITS.restMinutes;
  const drop = async (what: Exclude<keyof Freed, 'bytes'>, file: KeptFile) => {
    await rm(file.path, { force: true });
    freed[what]++;
    freed.bytes += file.bytes;
  };

  async function dropRested(what: 'incoming' | 'outputs', folder: string): Promise<void> {
    for (const file of await filesOf(folder)) if (file.used < rested) await drop(what, file);
  }

  async function dropOver(
    what: 'derived' | 'thumbnails' | 'results',
    budget: number,
    isCurrent: (name: string) => boolean,
  ): Promise<void> {
    const files = await filesOf(join(dataDir, what));
    let kept = files.reduce((sum, { bytes }) => sum + bytes, 0);
    for (const file of files) {
      if (file.used >= rested || (isCurrent(file.name) && kept <= budget)) continue;
      await drop(what, file);
      kept -= file.bytes;
    }
  }

  async function dropAssets(inUse: ReadonlySet<string>): Promise<void> {
    for (const folder of await readdir(join(dataDir, 'assets')).catch(() => [])) {
      for (const file of await filesOf(join(dataDir, 'assets', folder))) {
        if (inUse.has(file.name) || file.used >= rested) continue;
        if (forgetAsset(space, file.name)) await drop('assets', file);
      }
    }
  }

  db.delete(offers)
    .where(lt(offers.createdAt, now - 86_400_000 * LIMITS.offerDays))
    .run();
  const inUse = await hashesInUse(space);
  await dropRested('incoming', join(dataDir, 'incoming'));
  await dropRested('outputs', join(dataDir, 'outputs'));
  await dropAssets(inUse);
  await dropOver('derived', LIMITS.derivedBytes, (name) => inUse.has(name.slice(0, 64)));
  await dropOver('thumbnails', LIMITS.thumbnailBytes, createIsCurrent(space, inUse));
  await dropOver('results', LIMITS.resultBytes, () => true);
  return freed;
}

/** Milliseconds between two times of tidying. */
const HOUR = 3_600_000;

/** Tidies at once and then by the hour, for as long as the process lives. */
export function keepTidy(space: Workspace): void {
  const run = () => void tidy(space).catch((error: unknown) => console.error(error));
  run();
  setInterval(run, HOUR).unref();
}
