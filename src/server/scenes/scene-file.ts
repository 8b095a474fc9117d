import type { Readable } from 'node:stream';
import { ZipFile } from 'yazl';
import type { Scene } from '@/core/scene/schema';
import { assetPath } from '../assets/asset-store';
import {
  coverageAssets,
  coverageName,
  LUT,
  placedAssets,
  placedName,
  PLATE,
  SCENE,
  SKY,
} from './scene-file-names';

const ZIP_MAGIC = [0x50, 0x4b, 0x03, 0x04];

/** Whether bytes begin like a ZIP, as every scene file does. */
export function looksLikeSceneFile(head: Uint8Array): boolean {
  return ZIP_MAGIC.every((byte, i) => head[i] === byte);
}

/**
 * A scene as one file, piece by piece: a ZIP of `scene.json`, `plate` and, where they are used, `lut.cube`, `pictures/*` and `mattes/*.png`.
 * Pictures are stored as they are, they do not shrink. The stream fails when a file of the store is missing.
 */
export function writeSceneFile(dataDir: string, scene: Scene): Readable {
  const zip = new ZipFile();
  const stored = { compress: false };
  zip.addBuffer(Buffer.from(JSON.stringify(scene, null, 1)), SCENE);
  zip.addFile(assetPath(dataDir, scene.plate.asset), PLATE, stored);
  const { lut } = scene.night;
  if (lut) zip.addFile(assetPath(dataDir, lut.asset), LUT);
  const { picture } = scene.sky;
  if (picture) zip.addFile(assetPath(dataDir, picture.asset), SKY, stored);
  for (const asset of placedAssets(scene)) zip.addFile(assetPath(dataDir, asset), placedName(asset), stored);
  for (const asset of coverageAssets(scene)) {
    zip.addFile(assetPath(dataDir, asset), coverageName(asset), stored);
  }
  const stream = zip.outputStream as Readable;
  zip.on('error', (error: Error) => stream.destroy(error));
  zip.end();
  return stream;
}
