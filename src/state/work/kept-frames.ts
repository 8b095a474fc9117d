import type { Size } from '@/engine/sizes';
import { createKeptStore } from './kept-store';

/** Finished pictures that stay from one visit to the next, so that a scene is there at once as it was seen last. */
export interface KeptFrames {
  /** The pixels of a picture by the key of all that it depends on; undefined where it is not kept. */
  find: (key: string, size: Size) => Promise<Uint8ClampedArray<ArrayBuffer> | undefined>;
  /** Keeps a picture in place of the scene's last one of that size. */
  keep: (key: string, size: Size, pixels: Uint8ClampedArray<ArrayBuffer>) => Promise<void>;
}

/** Most pictures that are kept, the newest. */
const MOST = 24;

const KEY = 'x-picture';

const addressOf = (sceneId: string, { width, height }: Size) =>
  `/kept-pictures/${sceneId}/${width}x${height}`;

/** A picture as an exact file, and back. */
async function encoded(pixels: Uint8ClampedArray<ArrayBuffer>, { width, height }: Size): Promise<Blob> {
  const canvas = new OffscreenCanvas(width, height);
  canvas.getContext('2d')!.putImageData(new ImageData(pixels, width, height), 0, 0);
  return canvas.convertToBlob({ type: 'image/png' });
}

async function decoded(file: Blob, { width, height }: Size) {
  const exact = { colorSpaceConversion: 'none', premultiplyAlpha: 'none' } as const;
  const image = await createImageBitmap(file, exact);
  if (image.width !== width || image.height !== height) return undefined;
  const context = new OffscreenCanvas(width, height).getContext('2d', { willReadFrequently: true })!;
  context.drawImage(image, 0, 0);
  return context.getImageData(0, 0, width, height).data;
}

/** The pictures of a scene that are kept in the browser's own store. */
export function createKeptFrames(sceneId: string): KeptFrames {
  const store = createKeptStore('pictures', MOST);
  return {
    async find(key, size) {
      const kept = await store.find(addressOf(sceneId, size));
      if (kept?.headers.get(KEY) !== key) return undefined;
      return decoded(await kept.blob(), size).catch(() => undefined);
    },
    async keep(key, size, pixels) {
      const headers = { [KEY]: key, 'content-type': 'image/png' };
      const file = await encoded(pixels, size).catch(() => undefined);
      if (file) await store.keep(addressOf(sceneId, size), new Response(file, { headers }));
    },
  };
}
