import { readFile, rm } from 'node:fs/promises';
import { eq } from 'drizzle-orm';
import sharp from 'sharp';
import type { Scene } from '@/core/scene/schema';
import { assets } from '@/db/schema';
import type { CoveragePicture } from '@/engine/render-assets';
import { AppError } from './app-error';
import { assetPath, keepFile, receiveBytes, type ReceivedFile } from './asset-store';
import type { Workspace } from './workspace';

/** Not a picture that a scene could begin with. */
const COVERAGE = 'coverage/png';

/** Most pixels of a coverage. */
const MOST_PIXELS = 4e6;

/** The assets of what edge brushes found in a scene. */
export const coverageAssets = ({ mattes }: Pick<Scene, 'mattes'>): string[] => [
  ...new Set(
    mattes.flatMap(({ passes }) =>
      passes.flatMap((pass) => (pass.kind === 'edge' && pass.asset ? [pass.asset] : [])),
    ),
  ),
];

/** Makes a received picture a coverage of the store: a grey PNG of 8 bits. Throws 422, and forgets it, when it is none. */
export async function takeCoverage(space: Workspace, received: ReceivedFile): Promise<{ asset: string }> {
  const { db, dataDir } = space;
  try {
    const source = sharp(received.path, { limitInputPixels: MOST_PIXELS });
    const { format, width, height, channels, depth } = await source.metadata();
    if (format !== 'png') throw new Error(`a ${format}`);
    await source.stats();
    // What is grey already is kept as it is, so that a scene file's own name for it holds.
    const kept =
      channels === 1 && depth === 'uchar'
        ? received
        : await receiveBytes(dataDir, await source.extractChannel(0).png({ compressionLevel: 9 }).toBuffer());
    await keepFile(dataDir, kept);
    db.insert(assets)
      .values({ hash: kept.hash, bytes: kept.bytes, mime: COVERAGE, width, height, createdAt: Date.now() })
      .onConflictDoNothing()
      .run();
    return { asset: kept.hash };
  } catch (error) {
    if (error instanceof AppError) throw error;
    throw new AppError(422, 'bad-coverage', 'A matte’s picture must be a PNG of at most 4 megapixels.');
  } finally {
    await rm(received.path, { force: true });
  }
}

/** The PNG of a coverage. Throws 404. */
export async function coverageBytes(dataDir: string, hash: string): Promise<Uint8Array> {
  return readFile(assetPath(dataDir, hash)).catch(() => {
    throw new AppError(
      404,
      'no-coverage',
      'What the edge brush found is not here any more. Take its pass away in Mattes, or stroke over it again.',
    );
  });
}

/** A coverage, ready to be laid over the plate. */
export async function loadCoverage(dataDir: string, hash: string): Promise<CoveragePicture> {
  const { data, info } = await sharp(await coverageBytes(dataDir, hash))
    .extractChannel(0)
    .raw()
    .toBuffer({ resolveWithObject: true });
  return { width: info.width, height: info.height, data: new Uint8Array(data) };
}

/** Checks that all that edge brushes found in a scene is in the store. Throws 422. */
export function requireCoverages(db: Pick<Workspace['db'], 'select'>, scene: Pick<Scene, 'mattes'>): void {
  for (const asset of coverageAssets(scene)) {
    if (db.select({ hash: assets.hash }).from(assets).where(eq(assets.hash, asset)).get()) continue;
    throw new AppError(422, 'no-coverage', 'What the edge brush found is not here. Stroke over it again.');
  }
}
