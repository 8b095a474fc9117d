import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import sharp from 'sharp';
import type { Nocturne } from '@/core/night/nocturnes';
import type { OpenScene } from '@/core/scene/opened-scene';
import type { Scene } from '@/core/scene/schema';
import type { Renderer } from '@/engine/renderer';
import { surveySize } from '@/engine/sizes';
import { assetPath } from './asset-store';
import { keepCopy } from './keep-copy';
import { encodePicture, renderRgb } from './render-picture';

const THUMBNAIL = { quality: 84, scale: 1.5, nocturneScale: 0.4 } as const;

function smallSize({ plate }: Scene, scale: number) {
  const width = Math.max(1, Math.min(plate.width, Math.round(scale * surveySize(plate).width)));
  return { width, height: Math.max(1, Math.round((width * plate.height) / plate.width)) };
}

async function nightJpeg(renderer: Renderer, scene: Scene, scale: number): Promise<Uint8Array> {
  const size = smallSize(scene, scale);
  const rgb = await renderRgb(renderer, scene, size, new AbortController().signal);
  return encodePicture(rgb, size, { format: 'jpeg', quality: THUMBNAIL.quality }).toBuffer();
}

/** A small JPEG of a scene's plate or of its night as it is now, kept under its revision. */
export async function sceneThumbnail(
  dataDir: string,
  renderer: Renderer,
  { id, scene, revision }: OpenScene,
  of: 'day' | 'night',
): Promise<Uint8Array> {
  const kept = join(
    dataDir,
    'thumbnails',
    of === 'day' ? `${scene.plate.asset}.jpg` : `${id}-${revision}.jpg`,
  );
  const found = await readFile(kept).catch(() => undefined);
  if (found) return found;
  const dayJpeg = () =>
    sharp(assetPath(dataDir, scene.plate.asset))
      .autoOrient()
      .resize(smallSize(scene, THUMBNAIL.scale))
      .jpeg({ quality: THUMBNAIL.quality })
      .toBuffer();
  const data = await (of === 'day' ? dayJpeg() : nightJpeg(renderer, scene, THUMBNAIL.scale));
  await keepCopy(kept, data);
  return data;
}

/** A small JPEG of a scene in another night. */
export function nocturneThumbnail(
  renderer: Renderer,
  scene: Scene,
  { night }: Nocturne,
): Promise<Uint8Array> {
  return nightJpeg(renderer, { ...scene, night }, THUMBNAIL.nocturneScale);
}
