import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { framedSize } from '@/core/frame/frame';
import type { Nocturne } from '@/core/night/nocturnes';
import type { OpenScene } from '@/core/scene/opened-scene';
import type { Scene } from '@/core/scene/schema';
import type { Renderer } from '@/engine/renderer';
import { surveySize } from '@/engine/sizes';
import { touch } from '../assets/asset-store';
import { keepCopy } from '../assets/keep-copy';
import type { PlateReader } from '../plates/plate-codes';
import { dayRgb } from './day-picture';
import { encodePicture } from './encode-picture';
import { renderRgb } from './render-picture';

const THUMBNAIL = { quality: 84, scale: 1.5, nocturneScale: 0.4, entryScale: 0.24 } as const;

function smallSize({ plate, frame }: Scene, scale: number) {
  const whole = framedSize(plate, frame);
  const width = Math.max(1, Math.min(whole.width, Math.round(scale * surveySize(whole).width)));
  return { width, height: Math.max(1, Math.round((width * whole.height) / whole.width)) };
}

/** The day as the frame shows it. */
async function dayJpeg(plates: PlateReader, scene: Scene, signal: AbortSignal): Promise<Uint8Array> {
  const size = smallSize(scene, THUMBNAIL.scale);
  const rgb = await dayRgb(plates, scene, size, signal);
  return encodePicture(rgb, size, { format: 'jpeg', quality: THUMBNAIL.quality });
}

async function nightJpeg(
  renderer: Renderer,
  scene: Scene,
  scale: number,
  signal: AbortSignal,
): Promise<Uint8Array> {
  const size = smallSize(scene, scale);
  const rgb = await renderRgb(renderer, scene, size, signal);
  return encodePicture(rgb, size, { format: 'jpeg', quality: THUMBNAIL.quality });
}

const keptAt = (dataDir: string, name: string) => join(dataDir, 'thumbnails', `${name}.jpg`);

async function kept(path: string): Promise<Uint8Array | undefined> {
  const found = await readFile(path).catch(() => undefined);
  if (found) await touch(path);
  return found;
}

/** A picture that is kept, or made now and kept from here on. */
async function keptOr(path: string, make: () => Promise<Uint8Array>): Promise<Uint8Array> {
  const found = await kept(path);
  if (found) return found;
  const data = await make();
  await keepCopy(path, data);
  return data;
}

const nightName = ({ id, revision }: OpenScene) => `${id}-${revision}`;

/* Thumbnails reject when `signal` says that nobody waits for them any more. */

/** A small JPEG of a scene's plate or of its night as it is now, kept under its revision. */
export async function sceneThumbnail(
  dataDir: string,
  plates: PlateReader,
  renderer: Renderer,
  open: OpenScene,
  of: 'day' | 'night',
  signal: AbortSignal,
): Promise<Uint8Array> {
  const { scene } = open;
  const framed = Object.values(scene.frame).join('_');
  const path = keptAt(dataDir, of === 'day' ? `${scene.plate.asset}-${framed}` : nightName(open));
  return keptOr(path, () =>
    of === 'day' ? dayJpeg(plates, scene, signal) : nightJpeg(renderer, scene, THUMBNAIL.scale, signal),
  );
}

/** What a window shows until its own first frame is there: the night if it is kept already, else the day. */
export const openingThumbnail = async (
  dataDir: string,
  plates: PlateReader,
  renderer: Renderer,
  open: OpenScene,
  signal: AbortSignal,
): Promise<Uint8Array> =>
  (await kept(keptAt(dataDir, nightName(open)))) ??
  sceneThumbnail(dataDir, plates, renderer, open, 'day', signal);

/** A small JPEG of a scene in another night. */
export function nocturneThumbnail(
  renderer: Renderer,
  scene: Scene,
  { night }: Nocturne,
  signal: AbortSignal,
): Promise<Uint8Array> {
  return nightJpeg(renderer, { ...scene, night }, THUMBNAIL.nocturneScale, signal);
}

/** A small JPEG of a scene as it was after an entry of its log. It never changes, and is kept. */
export async function entryThumbnail(
  dataDir: string,
  renderer: Renderer,
  scene: Scene,
  entryId: string,
  signal: AbortSignal,
): Promise<Uint8Array> {
  return keptOr(keptAt(dataDir, `entry-${entryId}`), () =>
    nightJpeg(renderer, scene, THUMBNAIL.entryScale, signal),
  );
}

/** A thumbnail as an answer; if its address names what it shows, it may be kept for ever. */
export function jpegResponse(data: Uint8Array, lasts = true): Response {
  const cached = lasts ? 'private, max-age=31536000, immutable' : 'no-store';
  const headers = { 'content-type': 'image/jpeg', 'cache-control': cached };
  return new Response(new Uint8Array(data), { headers });
}
