import { createHash } from 'node:crypto';
import { readFile } from 'node:fs/promises';
import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate';
import { parseScene, SceneFormatError } from '@/core/scene/parse-scene';
import type { OpenScene } from '@/core/scene/opened-scene';
import type { Scene } from '@/core/scene/schema';
import { AppError } from './app-error';
import { assetPath } from './asset-store';
import { coverageAssets, coverageBytes } from './coverage-store';
import { LIMITS } from './limits';
import { lutBytes } from './lut-store';

/** A scene file taken apart: the document, and its plate as it was dropped in. */
export interface SceneFile {
  scene: Scene;
  plate: Uint8Array;
  /** The look-up table that the night uses. */
  lut?: Uint8Array;
  /** What edge brushes found, as PNGs. */
  coverages: Uint8Array[];
}

const LUT = 'lut.cube';
const coverageName = (asset: string) => `mattes/${asset}.png`;

const ZIP_MAGIC = [0x50, 0x4b, 0x03, 0x04];

/** Whether bytes begin like a ZIP, as every scene file does. */
export function looksLikeSceneFile(head: Uint8Array): boolean {
  return ZIP_MAGIC.every((byte, i) => head[i] === byte);
}

/**
 * A scene as one file: a ZIP of `scene.json`, `plate` and, where they are used, `lut.cube` and `mattes/*.png`. Pictures are
 * stored as they are, they do not shrink.
 */
export async function writeSceneFile(dataDir: string, { scene }: OpenScene): Promise<Uint8Array> {
  const plate = await readFile(assetPath(dataDir, scene.plate.asset));
  const { lut } = scene.night;
  const coverages: Record<string, [Uint8Array, { level: 0 }]> = {};
  for (const asset of coverageAssets(scene)) {
    coverages[coverageName(asset)] = [await coverageBytes(dataDir, asset), { level: 0 }];
  }
  return zipSync({
    'scene.json': strToU8(JSON.stringify(scene, null, 1)),
    plate: [plate, { level: 0 }],
    ...(lut && { [LUT]: await lutBytes(dataDir, lut.asset) }),
    ...coverages,
  });
}

/** Takes a scene file apart. Throws 422 with the reason when it is not one. */
export function readSceneFile(bytes: Uint8Array): SceneFile {
  let parts: Record<string, Uint8Array>;
  let unpacked = 0;
  try {
    parts = unzipSync(bytes, {
      filter: ({ name, originalSize }) => {
        unpacked += originalSize;
        const known = ['scene.json', 'plate', LUT].includes(name) || /^mattes\/[0-9a-f]{64}\.png$/.test(name);
        return known && unpacked <= LIMITS.uploadBytes;
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
    const scene = parseScene(JSON.parse(strFromU8(parts['scene.json'])));
    const { lut } = scene.night;
    const hashOf = (part?: Uint8Array) => part && createHash('sha256').update(part).digest('hex');
    const coverages = coverageAssets(scene).map((asset) => {
      const part = parts[coverageName(asset)];
      if (hashOf(part) === asset) return part;
      throw new AppError(422, 'no-coverage', 'The scene file lacks what an edge brush of its mattes found.');
    });
    if (lut && lut.asset !== hashOf(parts[LUT])) {
      throw new AppError(422, 'no-lut', 'The scene file lacks the look-up table that its night uses.');
    }
    return { scene, plate: parts.plate, lut: lut ? parts[LUT] : undefined, coverages };
  } catch (error) {
    if (error instanceof AppError) throw error;
    if (error instanceof SceneFormatError) throw new AppError(422, 'bad-scene', error.message);
    throw new AppError(422, 'bad-scene', 'The scene file holds no readable scene.');
  }
}
