import type { Region } from '@/core/plane/region';
import { isAbort } from '@/engine/aborted';
import type { FrameRequest } from '@/engine/frame-request';
import type { Renderer } from '@/engine/renderer';

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

/**
 * Turns wishes into frames: where more than the mix is missing, a coarse frame at once and then the fine one. A newer
 * wish drops a fine frame that is still in the making; coarse frames and mere mixes are always finished, so that a drag
 * shows every frame that the machine can make.
 */
export function createPreview(
  renderer: Renderer,
  paint: Paint,
  onBusy: (busy: boolean) => void,
  onFault: (error: Error) => void,
): Preview {
  let wish: PreviewWish | undefined;
  let fine = new AbortController();
  let running = false;
  const lasting = new AbortController();

  async function work(): Promise<void> {
    running = true;
    onBusy(true);
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
    if (!ready && coarse.width < request.region.width) {
      await renderer.frame({ ...request, region: coarse }, lasting.signal, (pixels) =>
        paint(pixels, coarse, true),
      );
    }
    const signal = ready ? lasting.signal : AbortSignal.any([fine.signal, lasting.signal]);
    if (wish && !ready) return;
    await renderer.frame(request, signal, (pixels) => paint(pixels, request.region, false));
  }

  return {
    show(next) {
      wish = next;
      fine.abort();
      if (!running) void work();
    },
    stop() {
      wish = undefined;
      lasting.abort();
      renderer.close();
    },
  };
}
