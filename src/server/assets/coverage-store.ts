import { readFile, rm } from 'node:fs/promises';
import sharp from 'sharp';
import type { Scene } from '@/core/scene/schema';
import type { CoveragePicture } from '@/core/matte/coverage-picture';
import { AppError, diskFull } from '../http/app-error';
import { COVERAGE, putAsset, requireAsset } from './asset-kinds';
import { assetPath, keepFile, receiveBytes, touch, type ReceivedFile } from './asset-store';
import { coverageAssets } from '../scenes/scene-file-names';
import type { Workspace } from './workspace';

/** Most pixels of a coverage. */
const MOST_PIXELS = 4e6;

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
    putAsset(db, { hash: kept.hash, bytes: kept.bytes, mime: COVERAGE, width, height });
    return { asset: kept.hash };
  } catch (error) {
    if (error instanceof AppError || diskFull(error)) throw error;
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
      'What the edge brush found is not here any more. Remove its pass in Mattes, or stroke over it again.',
    );
  });
}

/** A coverage, ready to be laid over the plate. */
export async function loadCoverage(dataDir: string, hash: string): Promise<CoveragePicture> {
  await touch(assetPath(dataDir, hash));
  const { data, info } = await sharp(await coverageBytes(dataDir, hash))
    .extractChannel(0)
    .raw()
    .toBuffer({ resolveWithObject: true });
  return { width: info.width, height: info.height, data: new Uint8Array(data) };
}

/** Checks that all that edge brushes found in a scene is in the store. Throws 422. */
export function requireCoverages(
  db: Pick<Workspace['db'], 'select'>,
  scene: Pick<Scene, 'mattes' | 'placed'>,
): void {
  for (const asset of coverageAssets(scene)) {
    requireAsset(db, 'coverage', asset, 'What the edge brush found is not here. Stroke over it again.');
  }
}
