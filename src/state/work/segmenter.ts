import { wrap, type Remote } from 'comlink';
import type { EdgeStroke } from '@/core/matte/pass';
import type { PlatePoint } from '@/core/geometry/camera';
import type { ThingBox } from '@/core/layout/guess-things';
import type { UprightThing } from '@/core/layout/guess-posts';
import type { PlateLine } from '@/core/geometry/vanishing-point';
import { wholeRegion } from '@/core/plane/region';
import type { Scene } from '@/core/scene/schema';
import { previewSize } from '@/engine/sizes';
import type { TwinClues } from '@/core/fixture/twin-fit';
import type { Alike } from '@/core/fixture/twins';
import type { Sample } from '@/segment/find-alike';
import type { SegmentService, WindowClues } from '@/segment/segment-service';
import type { WindowTwin } from '@/segment/window-twins';
import { api } from '../session/api';

/** Width of the copy of a plate in which edges are looked for, pixels. */
const WIDTH = 1600;

/** Where the worker is served. */
const WORKER = `/segment-worker.js?build=${process.env.SUNDEW_BUILD ?? ''}`;

/** Finds edges in a scene's plate, in a worker of its own. */
export interface Segmenter {
  /** Begins to load what it needs, so that the first stroke need not wait for it. */
  warm: () => void;
  /** Lays strokes over what a pass has found; the asset of what it has found then. A newer call gives up an older one. */
  brush: (asset: string | undefined, strokes: readonly EdgeStroke[]) => Promise<string>;
  /** The straight edges of the plate. */
  straightLines: () => Promise<PlateLine[]>;
  /** Things that stand on the ground of the plate, by its horizon. */
  standingThings: (horizon: number) => Promise<ThingBox[]>;
  /** The thin upright things of the plate. */
  uprightThings: () => Promise<UprightThing[]>;
  /** Places of the plate that look like a part of it, and where a ground plan lets it be. */
  findAlike: (sample: Sample, clues?: TwinClues) => Promise<Alike[]>;
  /** The level edges of the plate along which a wall's foot may run. */
  footEdges: () => Promise<PlateLine[]>;
  /** The outline of the window in which a place lies. */
  findWindow: (clues: WindowClues, at: PlatePoint) => Promise<PlatePoint[] | undefined>;
  /** Windows that look like one, on the same wall. */
  windowTwins: (clues: WindowClues, outline: PlatePoint[]) => Promise<WindowTwin[]>;
  traceFrom: (place: PlatePoint) => Promise<void>;
  traceTo: (place: PlatePoint) => Promise<PlatePoint[]>;
  /** Gives up what is under way. */
  cancel: () => void;
}

export function createSegmenter(sceneId: string, { asset: plateAsset, ...size }: Scene['plate']): Segmenter {
  const { width, height } = previewSize(size, WIDTH);
  let running: { worker: Worker; service: Promise<Remote<SegmentService>> } | undefined;
  let last: { asset: string; coverage: Uint8Array } | undefined;
  let giveUp = new AbortController();

  async function begin(worker: Worker, signal: AbortSignal): Promise<Remote<SegmentService>> {
    const service = wrap<SegmentService>(worker);
    const codes = await api.plateCodes(sceneId, plateAsset, wholeRegion(width, height), signal);
    await service.open({ width, height, rgb: Uint8Array.from(codes, (code) => code >> 8) });
    return service;
  }

  function start(): Promise<Remote<SegmentService>> {
    if (!running) {
      giveUp = new AbortController();
      const worker = new Worker(WORKER);
      const failed = new Promise<never>((_, reject) => {
        worker.addEventListener('error', () =>
          reject(new Error('The part that finds edges did not load. Once the server answers, try again.')),
        );
      });
      const service = Promise.race([begin(worker, giveUp.signal), failed]);
      running = { worker, service };
      // The next call begins anew; who asked gets the reason.
      service.catch(() => end(worker));
    }
    return running.service;
  }

  function end(worker: Worker): void {
    worker.terminate();
    if (running?.worker === worker) running = undefined;
  }

  function cancel(): void {
    giveUp.abort(new DOMException('Given up.', 'AbortError'));
    if (running) end(running.worker);
  }

  /** What a worker answers, unless it is given up before: a terminated one never answers. */
  async function asked<T>(ask: (service: Remote<SegmentService>) => Promise<T>): Promise<T> {
    const answer = start().then(ask);
    const { signal } = giveUp;
    const givenUp = new Promise<never>((_, reject) => {
      signal.addEventListener('abort', () => reject(signal.reason as Error), { once: true });
    });
    return Promise.race([answer, givenUp]);
  }

  async function coverageOf(asset: string | undefined): Promise<Uint8Array | undefined> {
    if (asset === undefined) return undefined;
    if (last?.asset === asset) return last.coverage;
    const { data, ...kept } = await api.coverage(sceneId, asset);
    if (kept.width !== width || kept.height !== height) {
      throw new Error('What was found before belongs to another plate. Begin a new pass.');
    }
    return data;
  }

  return {
    warm: () => void start().catch(() => {}),
    async brush(asset, strokes) {
      let coverage = await coverageOf(asset);
      for (const stroke of strokes) coverage = await asked((service) => service.brush(coverage, stroke));
      coverage ??= new Uint8Array(width * height);
      const kept = await api.keepCoverage(sceneId, await greyPng(coverage, width, height));
      last = { asset: kept, coverage };
      return kept;
    },
    straightLines: () => asked((service) => service.straightLines()),
    standingThings: (horizon) => asked((service) => service.standingThings(horizon)),
    uprightThings: () => asked((service) => service.uprightThings()),
    findAlike: (sample, clues) => asked((service) => service.findAlike(sample, clues)),
    footEdges: () => asked((service) => service.footEdges()),
    findWindow: (clues, at) => asked((service) => service.findWindow(clues, at)),
    windowTwins: (clues, outline) => asked((service) => service.windowTwins(clues, outline)),
    traceFrom: (place) => asked((service) => service.traceFrom(place)),
    traceTo: (place) => asked((service) => service.traceTo(place)),
    cancel,
  };
}

async function greyPng(coverage: Uint8Array, width: number, height: number): Promise<Blob> {
  const canvas = new OffscreenCanvas(width, height);
  const rgba = new Uint8ClampedArray(4 * coverage.length);
  coverage.forEach((value, i) => rgba.set([value, value, value, 255], 4 * i));
  canvas.getContext('2d')!.putImageData(new ImageData(rgba, width, height), 0, 0);
  return canvas.convertToBlob({ type: 'image/png' });
}
