import { readFile, rm } from 'node:fs/promises';
import type { Night } from '@/core/scene/schema';
import { CubeFormatError, parseCube, type CubeLut } from '@/core/grade/cube-lut';
import { AppError } from '../http/app-error';
import { LUT, putAsset, requireAsset } from './asset-kinds';
import { assetPath, keepFile, touch, type ReceivedFile } from './asset-store';
import type { Workspace } from './workspace';

/** What is told of a look-up table that was taken in. */
export interface LutFacts {
  asset: string;
  size: number;
  dimensions: 1 | 3;
}

/** Reads a table's text. Throws 422 with the line at fault. */
function readCube(bytes: Uint8Array): CubeLut {
  try {
    return parseCube(new TextDecoder().decode(bytes));
  } catch (error) {
    if (!(error instanceof CubeFormatError)) throw error;
    throw new AppError(422, 'bad-lut', `This is not a .cube table that Sundew reads. ${error.message}`);
  }
}

/** Makes a received .cube file a table of the store. Throws an AppError, and forgets the file, when it is none. */
export async function takeLut({ db, dataDir }: Workspace, received: ReceivedFile): Promise<LutFacts> {
  const { hash, path, bytes } = received;
  try {
    const { size, dimensions } = readCube(await readFile(path));
    await keepFile(dataDir, received);
    const [width, height] = dimensions === 3 ? [size, size * size] : [size, 1];
    putAsset(db, { hash, bytes, mime: LUT, width, height });
    return { asset: hash, size, dimensions };
  } catch (error) {
    await rm(path, { force: true });
    throw error;
  }
}

/** The text of a table of the store. Throws 404. */
export async function lutBytes(dataDir: string, hash: string): Promise<Uint8Array> {
  return readFile(assetPath(dataDir, hash)).catch(() => {
    throw new AppError(
      404,
      'no-lut',
      'This look-up table is not here any more. Load it from its file again.',
    );
  });
}

/** A table of the store, ready to be looked up. */
export async function loadLut(dataDir: string, hash: string): Promise<CubeLut> {
  await touch(assetPath(dataDir, hash));
  return readCube(await lutBytes(dataDir, hash));
}

/** Checks that the table that a night uses is in the store. Throws 422. */
export function requireLut(db: Pick<Workspace['db'], 'select'>, { lut }: Pick<Night, 'lut'>): void {
  if (lut) requireAsset(db, 'lut', lut.asset, 'The look-up table is not here. Load it from its file again.');
}
