import type { Region } from '@/core/plane/region';
import { isAbort } from '@/engine/aborted';
import type { FrameRequest } from '@/engine/frame-request';
import type { Renderer } from '@/engine/renderer';
import type { KeptFrames } from './kept-frames';

/** What the picture should show. */
export interface PreviewWish extends FrameRequest {
  /** The same part of the plate in fewer pixels, for a frame at once. */
  coarse: Region;
}

/** Paints a frame of a region. A coarse one stands in for the fine one. */
export type Paint = (pixels: Uint8ClampedArray, region: Region, isCoarse: boolean) => void;

export interface Preview {
  /** Asks for a frame; a newer wish replaces an older one. */
  show: (wish: PreviewWish) => void;
  stop: () => void;
}

/** A picture is kept for the next visit once nothing has changed it for so long. */
const AT_REST_MS = 2500;

/**
 * Turns wishes into frames: where more than the mix is missing, a coarse frame at once and then the fine one. A newer
 * wish drops a fine frame that is still in the making; coarse frames and mere mixes are always finished, so that a drag
 * shows every frame that the machine can make. The first picture may be there from an earlier visit: then it is shown at once, and what
 * later frames stand on is made behind it.
 */
export function createPreview(
  renderer: Renderer,
  paint: Paint,
  onBusy: (busy: boolean) => void,
  onFault: (error: Error) => void,
  kept?: KeptFrames,
): Preview {
  let wish: PreviewWish | undefined;
  let fine = new AbortController();
  let running = false;
  let isFirst = true;
  let resting: ReturnType<typeof setTimeout> | undefined;
  const lasting = new AbortController();

  async function work(): Promise<void> {
    running = true;
    while (wish && !lasting.signal.aborted) {
      const next = wish;
      wish = undefined;
      fine = new AbortController();
      try {
        await makeFrames(next);
      } catch (error) {
        if (!isAbort(error)) onFault(error as Error);
      }
    }
    running = false;
    onBusy(false);
  }

  async function makeFrames({ coarse, ...request }: PreviewWish): Promise<void> {
    const ready = renderer.isReady(request);
    const isThere = isFirst && kept !== undefined && (await showKept(kept, request));
    isFirst = false;
    if (!ready && !isThere && coarse.width < request.region.width) {
      await renderer.frame({ ...request, region: coarse }, lasting.signal, (pixels) =>
        paint(pixels, coarse, true),
      );
    }
    const signal = ready ? lasting.signal : AbortSignal.any([fine.signal, lasting.signal]);
    if (wish && !ready) return;
    await renderer.frame(request, signal, (pixels) => paint(pixels, request.region, false));
    keepOnceAtRest(request);
  }

  /** Shows the picture of an earlier visit, where it is that of this document. */
  async function showKept(frames: KeptFrames, request: FrameRequest): Promise<boolean> {
    const pixels = await frames.find(renderer.keyOf(request), request.region);
    if (!pixels || lasting.signal.aborted) return false;
    paint(pixels, request.region, false);
    onBusy(false);
    return true;
  }

  /** Keeps the picture for the next visit, once it has stood for a while. It is mixed once more then: while it moves, nothing is copied. */
  function keepOnceAtRest(request: FrameRequest): void {
    clearTimeout(resting);
    if (!kept || request.show || request.moving) return;
    resting = setTimeout(() => {
      if (running || !renderer.isReady(request)) return;
      void renderer
        .frame(request, lasting.signal, (pixels) => new Uint8ClampedArray(pixels))
        .then((pixels) => kept.keep(renderer.keyOf(request), request.region, pixels))
        .catch(() => {});
    }, AT_REST_MS);
  }

  return {
    show(next) {
      clearTimeout(resting);
      wish = next;
      onBusy(true);
      fine.abort();
      if (!running) void work();
    },
    stop() {
      clearTimeout(resting);
      wish = undefined;
      lasting.abort();
      renderer.close();
    },
  };
}
