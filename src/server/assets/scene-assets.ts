import { Readable } from 'node:stream';
import { and, eq, or, sql, type AnyColumn } from 'drizzle-orm';
import { moments, nocturnes, offers, revisions, scenes } from '@/db/schema';
import { AppError } from '../http/app-error';
import { findAsset, type AssetKind } from './asset-kinds';
import { receiveFile, type ReceivedFile } from './asset-store';
import { hasScene, noScene } from '../scenes/scene-repository';
import type { Workspace } from './workspace';

const GONE: Record<AssetKind, string> = {
  plate: 'The photo of this scene is missing.',
  coverage:
    'What the edge brush found is not here any more. Remove its pass in Mattes, or stroke over it again.',
  lut: 'This look-up table is not here any more. Load it from its file again.',
};

const names = (column: AnyColumn, hash: string) => sql`instr(${column}, ${hash}) > 0`;

/** Whether a scene, its log, its moments, or a nocturne that it may take refers to an asset, or a window of it took it in. */
function refersTo({ db }: Workspace, sceneId: string, hash: string): boolean {
  const offered = db
    .select()
    .from(offers)
    .where(and(eq(offers.sceneId, sceneId), eq(offers.hash, hash)));
  const inScene = db
    .select({ id: scenes.id })
    .from(scenes)
    .where(and(eq(scenes.id, sceneId), names(scenes.document, hash)));
  const inLog = db
    .select({ id: revisions.entryId })
    .from(revisions)
    .where(
      and(eq(revisions.sceneId, sceneId), or(names(revisions.patches, hash), names(revisions.inverse, hash))),
    );
  const inMoment = db
    .select({ id: moments.id })
    .from(moments)
    .where(and(eq(moments.sceneId, sceneId), names(moments.document, hash)));
  const inNocturne = db.select({ id: nocturnes.id }).from(nocturnes).where(names(nocturnes.night, hash));
  return [offered, inScene, inLog, inMoment, inNocturne].some((query) => query.limit(1).get() !== undefined);
}

/** The row of an asset that a scene may read as of a kind. Throws 404. */
export function requireReadable(space: Workspace, sceneId: string, kind: AssetKind, hash: string) {
  const asset = findAsset(space.db, kind, hash);
  if (!asset || !refersTo(space, sceneId, hash)) throw new AppError(404, `no-${kind}`, GONE[kind]);
  return asset;
}

/** Takes in a file that a window on a scene sends, which may read it from now on. Throws an AppError. */
export async function offerAsset<Taken extends { asset: string }>(
  space: Workspace,
  sceneId: string,
  body: AsyncIterable<Uint8Array> | null,
  mostBytes: number,
  take: (space: Workspace, received: ReceivedFile) => Promise<Taken>,
): Promise<Taken> {
  if (!hasScene(space, sceneId)) throw noScene();
  const taken = await take(space, await receiveFile(space.dataDir, body ?? Readable.from([]), mostBytes));
  space.db
    .insert(offers)
    .values({ sceneId, hash: taken.asset, createdAt: Date.now() })
    .onConflictDoNothing()
    .run();
  return taken;
}
