import { readFile } from 'node:fs/promises';
import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate';
import { parseScene, SceneFormatError } from '@/core/scene/parse-scene';
import type { OpenScene } from '@/core/scene/opened-scene';
import type { Scene } from '@/core/scene/schema';
import { AppError } from './app-error';
import { assetPath } from './asset-store';
import { LIMITS } from './limits';

/** A scene file taken apart: the document, and its plate as it was dropped in. */
export interface SceneFile {
  scene: Scene;
  plate: Uint8Array;
}

const ZIP_MAGIC = [0x50, 0x4b, 0x03, 0x04];

/** Whether bytes begin like a ZIP, as every scene file does. */
export function looksLikeSceneFile(head: Uint8Array): boolean {
  return ZIP_MAGIC.every((byte, i) => head[i] === byte);
}

/** A scene as one file: a ZIP of `scene.json` and `plate`. Photos are stored as they are, they do not shrink. */
export async function writeSceneFile(dataDir: string, { scene }: OpenScene): Promise<Uint8Array> {
  const plate = await readFile(assetPath(dataDir, scene.plate.asset));
  return zipSync({ 'scene.json': strToU8(JSON.stringify(scene, null, 1)), plate: [plate, { level: 0 }] });
}

/** Takes a scene file apart. Throws 422 with the reason when it is not one. */
export function readSceneFile(bytes: Uint8Array): SceneFile {
  let parts: Record<string, Uint8Array>;
  let unpacked = 0;
  try {
    parts = unzipSync(bytes, {
      filter: ({ name, originalSize }) => {
        unpacked += originalSize;
        return (name === 'scene.json' || name === 'plate') && unpacked <= LIMITS.uploadBytes;
      },
    });
  } catch {
    throw new AppError(422, 'damaged', 'The scene file is damaged. Copy it again from where it came from.');
  }
  if (!parts['scene.json'] || !parts.plate) {
    throw new AppError(
      422,
      'not-a-scene',
      'This ZIP is not a Sundew scene: scene.json or the plate is missing.',
    );
  }
  try {
    return { scene: parseScene(JSON.parse(strFromU8(parts['scene.json']))), plate: parts.plate };
  } catch (error) {
    if (error instanceof SceneFormatError) throw new AppError(422, 'bad-scene', error.message);
    throw new AppError(422, 'bad-scene', 'The scene file holds no readable scene.');
  }
}
