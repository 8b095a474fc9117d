import { readFile, rm } from 'node:fs/promises';
import type { Readable } from 'node:stream';
import { promisify } from 'node:util';
import yauzl, { type Entry, type ZipFile } from 'yauzl';
import { parseJson } from '@/core/scene/parse-json';
import { parseScene, SceneFormatError } from '@/core/scene/parse-scene';
import type { Scene } from '@/core/scene/schema';
import { AppError, diskFull, fullDisk } from '../http/app-error';
import { receiveFile, type ReceivedFile } from '../assets/asset-store';
import { LIMITS } from '../http/limits';
import {
  coverageAssets,
  COVERAGE_NAME,
  coverageName,
  LUT,
  PLACED_NAME,
  placedAssets,
  placedName,
  PLATE,
  SCENE,
  SKY,
} from './scene-file-names';
import { pathsOf, type SceneParts } from './scene-parts';

const openZip = promisify<string, yauzl.Options, ZipFile>(yauzl.open);

const refuse = (code: string, message: string) => new AppError(422, code, message);
const tooMuch = () =>
  refuse('too-much', 'The scene file holds more than a scene can be. Save it again from Sundew.');

/** Most bytes of a part by its name; undefined for what is no part of a scene. */
function mostBytes(name: string): number | undefined {
  if (name === SCENE) return LIMITS.documentBytes;
  if (name === PLATE || name === SKY || PLACED_NAME.test(name)) return LIMITS.uploadBytes;
  if (name === LUT) return LIMITS.lutBytes;
  return COVERAGE_NAME.test(name) ? LIMITS.coverageBytes : undefined;
}

/** Goes through the entries of a ZIP, one after the other. */
function forEachEntry(zip: ZipFile, visit: (entry: Entry) => Promise<void>): Promise<void> {
  return new Promise((resolve, reject) => {
    zip.on('entry', (entry: Entry) => {
      visit(entry).then(() => zip.readEntry(), reject);
    });
    zip.once('end', resolve);
    zip.once('error', reject);
    zip.readEntry();
  });
}

/** Receives the known parts of a ZIP as files, each once, none larger than such a part can be. */
async function receiveParts(zip: ZipFile, dataDir: string, parts: Map<string, ReceivedFile>): Promise<void> {
  const openEntry = promisify<Entry, Readable>(zip.openReadStream.bind(zip));
  if (zip.entryCount > LIMITS.sceneFileEntries) throw tooMuch();
  await forEachEntry(zip, async (entry) => {
    const { fileName, uncompressedSize, compressedSize } = entry;
    const most = mostBytes(fileName);
    if (most === undefined) return;
    if (parts.has(fileName)) throw refuse('damaged', `The scene file holds ${fileName} twice.`);
    if (uncompressedSize > most || uncompressedSize > LIMITS.sceneFileRatio * Math.max(compressedSize, 4096))
      throw tooMuch();
    parts.set(fileName, await receiveFile(dataDir, await openEntry(entry), most));
  });
}

/** The document of a scene file. Throws 422 with the reason when it is none. */
async function readDocument(file: ReceivedFile): Promise<Scene> {
  try {
    return parseScene(parseJson(await readFile(file.path, 'utf8'), LIMITS.jsonDepth));
  } catch (error) {
    if (error instanceof SceneFormatError) throw refuse('bad-scene', error.message);
    if (diskFull(error)) throw error;
    throw refuse('bad-scene', 'The scene file holds no readable scene.');
  }
}

/** What a document needs of the parts beside it. Throws 422 for what is missing. */
function partsOf(
  scene: Scene,
  parts: ReadonlyMap<string, ReceivedFile>,
): Omit<SceneParts, 'scene' | 'plate'> {
  const coverages = coverageAssets(scene).map((asset) => {
    const part = parts.get(coverageName(asset));
    if (part?.hash === asset) return part;
    throw refuse('no-coverage', 'The scene file lacks what an edge brush of its mattes found.');
  });
  const placed = placedAssets(scene).map((asset) => {
    const part = parts.get(placedName(asset));
    if (part?.hash === asset) return part;
    throw refuse('no-placed', 'The scene file lacks a picture that is placed in it.');
  });
  const { lut } = scene.night;
  if (lut && lut.asset !== parts.get(LUT)?.hash) {
    throw refuse('no-lut', 'The scene file lacks the look-up table that its night uses.');
  }
  const { picture } = scene.sky;
  if (picture && picture.asset !== parts.get(SKY)?.hash) {
    throw refuse('no-sky', 'The scene file lacks the picture of its sky.');
  }
  return {
    ...{ coverages, placed },
    lut: lut ? parts.get(LUT) : undefined,
    sky: picture ? parts.get(SKY) : undefined,
  };
}

/**
 * Takes a scene file apart into received files of a data folder, counting what comes out. Throws an AppError with the reason, and
 * leaves nothing behind, when it is not one.
 */
export async function unpackScene({ path, dataDir }: { path: string; dataDir: string }): Promise<SceneParts> {
  const parts = new Map<string, ReceivedFile>();
  const forget = (keep: ReadonlySet<string>) =>
    Promise.all(
      [...parts.values()]
        .filter((part) => !keep.has(part.path))
        .map((part) => rm(part.path, { force: true })),
    );
  try {
    const zip = await openZip(path, { lazyEntries: true, autoClose: true });
    await receiveParts(zip, dataDir, parts).finally(() => zip.close());
    const [document, plate] = [parts.get(SCENE), parts.get(PLATE)];
    if (!document || !plate) {
      throw refuse('not-a-scene', 'This ZIP is not a Sundew scene: scene.json or the plate is missing.');
    }
    const scene = await readDocument(document);
    const needed = { plate, ...partsOf(scene, parts) };
    await forget(new Set(pathsOf(needed)));
    return { scene, ...needed };
  } catch (error) {
    await forget(new Set());
    if (error instanceof AppError) throw error.status === 413 ? tooMuch() : error;
    if (diskFull(error)) throw fullDisk();
    throw refuse('damaged', 'The scene file is damaged. Copy it again from where it came from.');
  }
}
