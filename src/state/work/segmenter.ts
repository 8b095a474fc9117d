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
import type { PlaceMatch } from '@/segment/same-place';
import type { WindowTwin } from '@/segment/window-twins';
import { api } from '../session/api';
import { createThingLooker } from './thing-looker';
import { hostWorker } from './worker-host';

/** Width of the copy of a plate in which edges are looked for, and of that in which things are, pixels. */
const WIDTH = 1600;
const THINGS_WIDTH = 1120;

const WORKER = {
  path: '/segment-worker.js',
  missing: 'The part that finds edges did not load. Once the server answers, try again.',
};

/** Finds edges and things in a scene's plate, in workers of their own. */
export interface Segmenter {
  /** Begins to load what it needs, so that the first stroke need not wait for it. */
  warm: () => void;
  /** Lays strokes over what a pass has found; the asset of what it has found then. A newer call gives up an older one. */
  brush: (asset: string | undefined, strokes: readonly EdgeStroke[]) => Promise<string>;
  /** The straight edges of the plate. */
  straightLines: () => Promise<PlateLine[]>;
  /** Things of the plate that are known by their looks, and where they are; its horizon tells where to look nearer. */
  seenThings: (horizon: number) => Promise<ThingBox[]>;
  /** Things that stand out from the ground of the plate by their tones, by its horizon. */
  standingThings: (horizon: number) => Promise<ThingBox[]>;
  /** The thin upright things of the plate. */
  uprightThings: () => Promise<UprightThing[]>;
  /** Places of the plate that look like a part of it, and where a ground plan lets it be. */
  findAlike: (sample: Sample, clues?: TwinClues) => Promise<Alike[]>;
  /** The level edges of the plate along which a wall's foot may run. */
  footEdges: () => Promise<PlateLine[]>;
  /** The outlines of windows in which a place may lie, the likeliest first; none where it lies in none. */
  findWindows: (clues: WindowClues, at: PlatePoint) => Promise<PlatePoint[][]>;
  /** How the plate shows what another scene's does; undefined where they do not surely show the same place. */
  samePlace: (otherId: string, other: Scene['plate']) => Promise<PlaceMatch | undefined>;
  /** Windows that look like one, on the same wall. */
  windowTwins: (clues: WindowClues, outline: PlatePoint[]) => Promise<WindowTwin[]>;
  traceFrom: (place: PlatePoint) => Promise<void>;
  traceTo: (place: PlatePoint) => Promise<PlatePoint[]>;
  /** Gives up what is under way. */
  cancel: () => void;
}

export function createSegmenter(sceneId: string, plate: Scene['plate']): Segmenter {
  const { width, height } = previewSize(plate, WIDTH);
  const pictureOf = async (
    id: string,
    { asset, ...own }: Scene['plate'],
    signal?: AbortSignal,
    wide = WIDTH,
  ) => {
    const { width, height } = previewSize(own, wide);
    const codes = await api.plateCodes(id, asset, wholeRegion(width, height), signal);
    return { width, height, rgb: Uint8Array.from(codes, (code) => code >> 8) };
  };
  let last: { asset: string; coverage: Uint8Array } | undefined;
  const { start, ask, cancel } = hostWorker<SegmentService>(WORKER, async (service, signal) => {
    await service.open(await pictureOf(sceneId, plate, signal));
  });
  const things = createThingLooker((signal) => pictureOf(sceneId, plate, signal, THINGS_WIDTH));

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
      for (const stroke of strokes) coverage = await ask((service) => service.brush(coverage, stroke));
      coverage ??= new Uint8Array(width * height);
      const kept = await api.keepCoverage(sceneId, await greyPng(coverage, width, height));
      last = { asset: kept, coverage };
      return kept;
    },
    straightLines: () => ask((service) => service.straightLines()),
    seenThings: things.look,
    standingThings: (horizon) => ask((service) => service.standingThings(horizon)),
    uprightThings: () => ask((service) => service.uprightThings()),
    findAlike: (sample, clues) => ask((service) => service.findAlike(sample, clues)),
    footEdges: () => ask((service) => service.footEdges()),
    findWindows: (clues, at) => ask((service) => service.findWindows(clues, at)),
    samePlace: (otherId, other) => ask(async (service) => service.samePlace(await pictureOf(otherId, other))),
    windowTwins: (clues, outline) => ask((service) => service.windowTwins(clues, outline)),
    traceFrom: (place) => ask((service) => service.traceFrom(place)),
    traceTo: (place) => ask((service) => service.traceTo(place)),
    cancel() {
      cancel();
      things.cancel();
    },
  };
}

async function greyPng(coverage: Uint8Array, width: number, height: number): Promise<Blob> {
  const canvas = new OffscreenCanvas(width, height);
  const rgba = new Uint8ClampedArray(4 * coverage.length);
  coverage.forEach((value, i) => rgba.set([value, value, value, 255], 4 * i));
  canvas.getContext('2d')!.putImageData(new ImageData(rgba, width, height), 0, 0);
  return canvas.convertToBlob({ type: 'image/png' });
}
