import { eq } from 'drizzle-orm';
import { assets } from '@/db/schema';
import { AppError } from '../http/app-error';
import type { Workspace } from './workspace';

/** Types of what is no picture that a scene could begin with. */
export const COVERAGE = 'coverage/png';
export const LUT = 'text/x-cube';

/** What an asset can be. It is served and used only as what it was taken in as. */
export type AssetKind = 'plate' | 'coverage' | 'lut';

const KINDS: Record<AssetKind, RegExp> = {
  plate: /(^| )image\//,
  coverage: /(^| )coverage\/png( |$)/,
  lut: /(^| )text\/x-cube( |$)/,
};

const isOf = (kind: AssetKind, mime: string): boolean => KINDS[kind].test(mime);

/** Puts a row of an asset in. One file may be taken in as more than one kind: its types then stand side by side. */
export function putAsset(db: Workspace['db'], row: Omit<typeof assets.$inferInsert, 'createdAt'>): void {
  const known = db.select().from(assets).where(eq(assets.hash, row.hash)).get();
  if (!known) {
    db.insert(assets)
      .values({ ...row, createdAt: Date.now() })
      .onConflictDoNothing()
      .run();
  } else if (!known.mime.split(' ').includes(row.mime)) {
    const mime = `${known.mime} ${row.mime}`;
    db.update(assets).set({ mime }).where(eq(assets.hash, row.hash)).run();
  }
}

/** The row of an asset that is there and of a kind; undefined otherwise. */
export function findAsset(db: Pick<Workspace['db'], 'select'>, kind: AssetKind, hash: string) {
  const row = db.select().from(assets).where(eq(assets.hash, hash)).get();
  return row && isOf(kind, row.mime) ? row : undefined;
}

/** Checks that an asset is there and of a kind. Throws 422 with `reason`. */
export function requireAsset(
  db: Pick<Workspace['db'], 'select'>,
  kind: AssetKind,
  hash: string,
  reason: string,
): void {
  if (!findAsset(db, kind, hash)) throw new AppError(422, `no-${kind}`, reason);
}
