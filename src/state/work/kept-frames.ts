import type { Size } from '@/engine/sizes';

/** Finished pictures that stay from one visit to the next, so that a scene is there at once as it was seen last. */
export interface KeptFrames {
  /** The pixels of a picture by the key of all that it depends on; undefined where it is not kept. */
  find: (key: string, size: Size) => Promise<Uint8ClampedArray<ArrayBuffer> | undefined>;
  /** Keeps a picture in place of the scene's last one of that size. */
  keep: (key: string, size: Size, pixels: Uint8ClampedArray<ArrayBuffer>) => Promise<void>;
}

/** Most pictures that are kept, the newest. */
const MOST = 24;

/** Another build may make another picture of the same document: what an older one kept is let go. */
const STEM = 'pictures of ';
const STORE = `${STEM}${process.env.SUNDEW_BUILD ?? ''}`;

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

/** The pictures of a scene that are kept in the browser's own store. Whatever goes wrong there, there just is none. */
export function createKeptFrames(sceneId: string): KeptFrames {
  return {
    async find(key, size) {
      try {
        const kept = await (await caches.open(STORE)).match(addressOf(sceneId, size));
        return kept?.headers.get(KEY) === key ? await decoded(await kept.blob(), size) : undefined;
      } catch {
        return undefined;
      }
    },
    async keep(key, size, pixels) {
      try {
        for (const name of await caches.keys()) {
          if (name.startsWith(STEM) && name !== STORE) await caches.delete(name);
        }
        const store = await caches.open(STORE);
        const headers = { [KEY]: key, 'content-type': 'image/png' };
        const address = addressOf(sceneId, size);
        await store.delete(address);
        await store.put(address, new Response(await encoded(pixels, size), { headers }));
        const [...all] = await store.keys();
        for (const old of all.slice(0, Math.max(0, all.length - MOST))) await store.delete(old);
      } catch {
        // A full disk, or a window that keeps nothing: the next visit computes it again.
      }
    },
  };
}
