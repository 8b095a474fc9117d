import { mkdirSync } from 'node:fs';
import { readFile, rename, writeFile } from 'node:fs/promises';
import { randomUUID } from 'node:crypto';
import { join } from 'node:path';
import sharp from 'sharp';
import type { OpenScene } from '@/core/scene/opened-scene';
import type { Renderer } from '@/engine/renderer';
import { surveySize } from '@/engine/sizes';
import { assetPath } from './asset-store';
import { encodePicture, renderRgb } from './render-picture';

const THUMBNAIL = { quality: 84, scale: 1.5 } as const;

/** A small JPEG of a scene's plate or of its night as it is now, kept under its revision. */
export async function sceneThumbnail(
  dataDir: string,
  renderer: Renderer,
  { id, scene, revision }: OpenScene,
  of: 'day' | 'night',
): Promise<Uint8Array> {
  const folder = join(dataDir, 'thumbnails');
  const kept = join(folder, of === 'day' ? `${scene.plate.asset}.jpg` : `${id}-${revision}.jpg`);
  const found = await readFile(kept).catch(() => undefined);
  if (found) return found;
  const small = surveySize(scene.plate);
  const width = Math.min(scene.plate.width, Math.round(THUMBNAIL.scale * small.width));
  const size = { width, height: Math.max(1, Math.round((width * scene.plate.height) / scene.plate.width)) };
  const choice = { format: 'jpeg', quality: THUMBNAIL.quality } as const;
  const picture =
    of === 'day'
      ? sharp(assetPath(dataDir, scene.plate.asset))
          .autoOrient()
          .resize(size)
          .jpeg({ quality: choice.quality })
      : encodePicture(await renderRgb(renderer, scene, size, new AbortController().signal), size, choice);
  const data = await picture.toBuffer();
  mkdirSync(folder, { recursive: true });
  const temporary = join(folder, randomUUID());
  await writeFile(temporary, data).then(
    () => rename(temporary, kept),
    () => {}, // A full disk only costs the copy.
  );
  return data;
}
