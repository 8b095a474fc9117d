import { expose } from 'comlink';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { EdgeStroke } from '@/core/matte/pass';
import type { Picture } from '@/segment/picture';
import { createSegmenter } from './segmenter';

const PLATE = { asset: 'a'.repeat(64), width: 400, height: 200 };
const STROKE: EdgeStroke = { act: 'loop', path: [0.1, 0.1, 0.9, 0.1, 0.5, 0.9], size: 0.01 };

/** How many workers were begun and ended, and whether they answer. */
const workers = { begun: 0, ended: 0, answers: true };

/** A worker on this thread, whose brush adds one to every pixel. */
class FakeWorker {
  private readonly channel = new MessageChannel();
  private readonly failing: (() => void)[] = [];
  constructor(readonly url: string) {
    workers.begun++;
    let plate: Picture | undefined;
    expose(
      {
        open: (picture: Picture) => void (plate = picture),
        brush: (before: Uint8Array | undefined) =>
          workers.answers
            ? (before ?? new Uint8Array(plate!.width * plate!.height)).map((value) => value + 1)
            : new Promise(() => {}),
        things: () => (workers.answers ? [{ is: 'person' }] : new Promise(() => {})),
        traceFrom: () => {},
        traceTo: (place: object) => [place],
      },
      this.channel.port2,
    );
    this.channel.port1.start();
    this.channel.port2.start();
  }
  addEventListener(type: string, listener: () => void) {
    if (type === 'error') this.failing.push(listener);
    else this.channel.port1.addEventListener(type, listener);
  }
  removeEventListener(type: string, listener: () => void) {
    this.channel.port1.removeEventListener(type, listener);
  }
  postMessage(message: unknown, transfer: Transferable[] = []) {
    this.channel.port1.postMessage(message, transfer);
  }
  fail() {
    this.failing.forEach((listener) => listener());
  }
  terminate() {
    workers.ended++;
    this.channel.port1.close();
    this.channel.port2.close();
  }
}

/** Stands in for the browser's canvas: the "PNG" is the coverage itself. */
class FakeCanvas {
  private image?: { data: Uint8ClampedArray };
  getContext = () => ({ putImageData: (image: { data: Uint8ClampedArray }) => (this.image = image) });
  convertToBlob = () => Promise.resolve(new Blob([this.image!.data.filter((_, i) => i % 4 === 0)]));
}

const kept = new Map<string, Uint8Array>();
const asked: string[] = [];
let isGone = false;

beforeEach(() => {
  Object.assign(workers, { begun: 0, ended: 0, answers: true });
  kept.clear();
  asked.length = 0;
  isGone = false;
  vi.stubGlobal('Worker', FakeWorker);
  vi.stubGlobal('OffscreenCanvas', FakeCanvas);
  vi.stubGlobal(
    'ImageData',
    class {
      constructor(readonly data: Uint8ClampedArray) {}
    },
  );
  vi.stubGlobal('fetch', async (path: string, init?: { method?: string; body?: Blob }) => {
    asked.push(`${init?.method ?? 'GET'} ${path.split('?')[0]}`);
    if (isGone) throw new TypeError('Failed to fetch');
    if (path.includes('/plates/')) return new Response(new Uint16Array(3 * 400 * 200).fill(257 * 9));
    if (init?.method !== 'POST') {
      const headers = { 'x-width': '400', 'x-height': '200' };
      return new Response(kept.get(path.split('/').at(-1)!) as Uint8Array<ArrayBuffer>, { headers });
    }
    const asset = String(kept.size + 1).repeat(64);
    kept.set(asset, new Uint8Array(await init.body!.arrayBuffer()));
    return Response.json({ asset });
  });
});
afterEach(() => vi.unstubAllGlobals());

describe('createSegmenter', () => {
  it('loads nothing before it is needed, and the plate once', async () => {
    const segmenter = createSegmenter('scene', PLATE);
    expect(workers.begun).toBe(0);
    const first = await segmenter.brush(undefined, [STROKE]);
    await segmenter.brush(first, [STROKE]);
    expect(workers.begun).toBe(1);
    expect(asked.filter((path) => path.includes('plates'))).toHaveLength(1);
    segmenter.cancel();
  });

  it('lays strokes over what was found before, whether it still knows it or asks for it', async () => {
    const segmenter = createSegmenter('scene', PLATE);
    const first = await segmenter.brush(undefined, [STROKE, STROKE]);
    expect(kept.get(first)![0]).toBe(2);
    expect(kept.get(await segmenter.brush(first, [STROKE]))![0]).toBe(3);
    expect(asked).not.toContain(`GET /api/scenes/scene/coverages/${first}`);
    expect(kept.get(await segmenter.brush(first, [STROKE]))![0]).toBe(3);
    expect(asked).toContain(`GET /api/scenes/scene/coverages/${first}`);
    expect(kept.get(await segmenter.brush(undefined, []))!.every((value) => value === 0)).toBe(true);
    segmenter.cancel();
  });

  it('gives up what is under way, and begins anew afterwards', async () => {
    const segmenter = createSegmenter('scene', PLATE);
    workers.answers = false;
    const stroke = segmenter.brush(undefined, [STROKE]);
    await vi.waitFor(() => expect(asked.length).toBe(1));
    segmenter.cancel();
    await expect(stroke).rejects.toMatchObject({ name: 'AbortError' });
    expect([workers.begun, workers.ended]).toEqual([1, 1]);
    workers.answers = true;
    expect(await segmenter.traceTo({ u: 0.5, v: 0.5 })).toEqual([{ u: 0.5, v: 0.5 }]);
    expect(workers.begun).toBe(2);
    segmenter.cancel();
  });

  it('looks for things once, however many ask meanwhile and after it, in a worker that ends then', async () => {
    const segmenter = createSegmenter('scene', PLATE);
    const both = await Promise.all([segmenter.seenThings(0.5), segmenter.seenThings(0.4)]);
    expect(both).toEqual([[{ is: 'person' }], [{ is: 'person' }]]);
    expect(await segmenter.seenThings(0.5)).toEqual([{ is: 'person' }]);
    expect([workers.begun, workers.ended]).toEqual([1, 1]);
    segmenter.cancel();
  });

  it('looks for things anew after that was given up', async () => {
    const segmenter = createSegmenter('scene', PLATE);
    workers.answers = false;
    const given = segmenter.seenThings(0.5);
    await vi.waitFor(() => expect(asked.length).toBe(1));
    segmenter.cancel();
    await expect(given).rejects.toMatchObject({ name: 'AbortError' });
    workers.answers = true;
    expect(await segmenter.seenThings(0.5)).toEqual([{ is: 'person' }]);
  });

  it('says that the server does not answer, and works when it does again', async () => {
    const segmenter = createSegmenter('scene', PLATE);
    isGone = true;
    await expect(segmenter.traceTo({ u: 0.5, v: 0.5 })).rejects.toThrow('The server does not answer');
    isGone = false;
    expect(await segmenter.traceTo({ u: 0.5, v: 0.5 })).toEqual([{ u: 0.5, v: 0.5 }]);
    segmenter.cancel();
  });
});
