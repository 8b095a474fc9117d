import { withinLimits } from './frame-limit';
import type { FrameRequest } from './frame-request';
import { createGraph } from './graph/graph';
import { spotOf, type Spot } from './graph/spot';
import { createMemo } from './graph/memo';
import { createTell } from './graph/tell';
import type { Arena } from './memory/arena';
import { createNodeStore } from './memory/node-store';
import type { Pool } from './pool/pool';
import type { Readout } from './readouts/readout';
import type { RenderAssets } from './render-assets';
import type { Region } from '@/core/plane/region';
import { LEAST_SIDE } from './sizes';
import { codesIn, deepCodesIn, deepFilm, picture } from './stages/picture';
import { createTurnQueue, type Turn } from './turn-queue';

/** Pixels of a finished frame: RGBA, 8 bits. Valid only until the callback that gets them returns. */
export type Consume<T> = (pixels: Uint8ClampedArray) => T;

export interface Renderer {
  /**
   * Makes a frame. Frames are made one after the other; an aborted one rejects with an AbortError, and one that takes too long or too
   * much memory with a FrameLimitError.
   */
  frame: <T>(request: FrameRequest, signal: AbortSignal, consume: Consume<T>) => Promise<T>;
  /** The same in codes of 16 bits. */
  deepFrame: <T>(
    request: FrameRequest,
    signal: AbortSignal,
    consume: (codes: Uint16Array) => T,
  ) => Promise<T>;
  /** Reads something else off the stages; soon, unless said otherwise. */
  read: <T>(readout: Readout<T>, signal: AbortSignal, turn?: Turn) => Promise<T>;
  /** Whether a frame needs nothing but what is quick. */
  isReady: (request: FrameRequest) => boolean;
  /** Names a frame by all that it depends on. */
  keyOf: (request: FrameRequest) => string;
  close: () => void;
}

/** Seconds that one frame may take: a limit of patience, far above what any scene needs. */
const FRAME_SECONDS = 240;

/** A frame of a region as wide as kernels need. */
function widened(request: FrameRequest): FrameRequest {
  const { region } = request;
  if (region.width >= LEAST_SIDE) return request;
  const left = Math.max(0, Math.min(region.left, region.fullWidth - LEAST_SIDE));
  return { ...request, region: { ...region, left, width: LEAST_SIDE } };
}

/** The columns of a region's pixels that another one of the same rows has. */
function columnsOf<Codes extends Uint8ClampedArray | Uint16Array>(
  pixels: Codes,
  from: Region,
  to: Region,
): Codes {
  if (from.width === to.width) return pixels;
  const out = pixels.slice(0, 4 * to.width * to.height) as Codes;
  for (let y = 0; y < to.height; y++) {
    const first = 4 * (y * from.width + to.left - from.left);
    out.set(pixels.subarray(first, first + 4 * to.width), 4 * y * to.width);
  }
  return out;
}

/** A renderer over one arena and its workers. `budgetBytes` bounds what is kept between frames, `frameSeconds` each of them. */
export function createRenderer(
  arena: Arena,
  pool: Pool,
  assets: RenderAssets,
  budgetBytes: number,
  frameSeconds = FRAME_SECONDS,
): Renderer {
  const store = createNodeStore(arena, budgetBytes);
  const graph = createGraph({ arena, pool, store, assets });
  const [tell, memo] = [createTell(), createMemo()];
  const takeTurn = createTurnQueue();
  const spots = new WeakMap<FrameRequest, Spot>();
  /** Of one request the same: what it depends on is told once, however often it is asked about. */
  const spot = (request: FrameRequest): Spot => {
    const known = spots.get(request) ?? spotOf(request, tell, memo);
    spots.set(request, known);
    return known;
  };

  /** Does some work on the stages when its turn comes. */
  function inTurn<T>(signal: AbortSignal, turn: Turn, work: (signal: AbortSignal) => Promise<T>): Promise<T> {
    return takeTurn(turn, async () => {
      signal.throwIfAborted();
      store.beginFrame();
      try {
        return await withinLimits(graph, frameSeconds, signal, work);
      } finally {
        store.endFrame();
      }
    });
  }

  return {
    frame: (request, signal, consume) =>
      inTurn(signal, request.turn ?? 'soon', (until) =>
        graph.see(picture(spot(widened(request))), until, (view) =>
          consume(columnsOf(codesIn(view), view.region, request.region)),
        ),
      ),
    deepFrame: (request, signal, consume) =>
      inTurn(signal, request.turn ?? 'soon', (until) =>
        graph.see(deepFilm(spot(widened(request))), until, (view) =>
          consume(columnsOf(deepCodesIn(view), view.region, request.region)),
        ),
      ),
    read: (readout, signal, turn = 'soon') =>
      inTurn(signal, turn, (until) =>
        readout({ spot, see: (want) => graph.see(want, until, (view) => view) }),
      ),
    keyOf: (request) => picture(spot(widened(request))).key,
    isReady: (request) => graph.isReady(picture(spot(widened(request)))),
    close() {
      pool.close();
      store.clear();
    },
  };
}
