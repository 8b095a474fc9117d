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
  show(wish: PreviewWish): void;
  stop(): void;
}

/** A fixture that is dragged rests for so long before its fine frame is begun: until then coarse ones have all there is. */
const DRAG_RESTS_MS = 120;

/** A picture is kept for the next visit once nothing has changed it for so long. */
const AT_REST_MS = 2500;

/**
 * Turns wishes into frames: where more than the mix is missing, a coarse frame at once and then the fine one. A newer
 * wish drops a fine frame that is still in the making; coarse frames and mere mixes are always finished, so that a drag
 * shows every frame that the machine can make. The first picture may be there from an earlier visit: then it is shown at once, and what
 * later frames stand on is made behind it.
 */
export const createPreview = (
  renderer: Renderer,
  paint: Paint,
  onBusy: (busy: boolean) => void,
  onFault: (error: Error) => void,
  kept?: KeptFrames,
): Preview => new FramePreview(renderer, paint, onBusy, onFault, kept);

/** Waits for some milliseconds, or until a signal aborts. */
const within = (milliseconds: number, signal: AbortSignal) =>
  new Promise<void>((resolve) => {
    if (signal.aborted) return resolve();
    const over = setTimeout(resolve, milliseconds);
    signal.addEventListener('abort', () => {
      clearTimeout(over);
      resolve();
    });
  });

class FramePreview implements Preview {
  private wish?: PreviewWish;
  private fine = new AbortController();
  private readonly lasting = new AbortController();
  private running = false;
  private isFirst = true;
  private resting?: ReturnType<typeof setTimeout>;

  constructor(
    private readonly renderer: Renderer,
    private readonly paint: Paint,
    private readonly onBusy: (busy: boolean) => void,
    private readonly onFault: (error: Error) => void,
    private readonly kept?: KeptFrames,
  ) {}

  show(next: PreviewWish): void {
    clearTimeout(this.resting);
    this.wish = next;
    this.onBusy(true);
    this.fine.abort();
    if (!this.running) void this.work();
  }

  stop(): void {
    clearTimeout(this.resting);
    this.wish = undefined;
    this.lasting.abort();
    this.renderer.close();
  }

  private async work(): Promise<void> {
    this.running = true;
    while (this.wish && !this.lasting.signal.aborted) {
      const next = this.wish;
      this.wish = undefined;
      this.fine = new AbortController();
      try {
        await this.makeFrames(next);
      } catch (error) {
        if (!isAbort(error)) this.onFault(error as Error);
      }
    }
    this.running = false;
    this.onBusy(false);
  }

  private async makeFrames({ coarse, ...request }: PreviewWish): Promise<void> {
    const { renderer, lasting, fine } = this;
    // Of a fixture that is dragged the light is never there: its frame is not even asked for.
    const ready = !request.moving && renderer.isReady(request);
    const isThere = this.isFirst && this.kept !== undefined && (await this.showKept(this.kept, request));
    this.isFirst = false;
    if (!ready && !isThere && coarse.width < request.region.width) {
      await renderer.frame({ ...request, region: coarse }, lasting.signal, (pixels) =>
        this.paint(pixels, coarse, true),
      );
    }
    const signal = ready ? lasting.signal : AbortSignal.any([fine.signal, lasting.signal]);
    if (request.moving) await within(DRAG_RESTS_MS, fine.signal);
    if (this.wish && !ready) return;
    await renderer.frame(request, signal, (pixels) => this.paint(pixels, request.region, false));
    this.keepOnceAtRest(request);
  }

  /** Shows the picture of an earlier visit, where it is that of this document. */
  private async showKept(kept: KeptFrames, request: FrameRequest): Promise<boolean> {
    const pixels = await kept.find(this.renderer.keyOf(request), request.region);
    if (!pixels || this.lasting.signal.aborted) return false;
    this.paint(pixels, request.region, false);
    this.onBusy(false);
    return true;
  }

  /** Keeps the picture for the next visit, once it has stood for a while. It is mixed once more then: while it moves, nothing is copied. */
  private keepOnceAtRest(request: FrameRequest): void {
    const { kept, renderer, lasting } = this;
    clearTimeout(this.resting);
    if (!kept || request.show || request.moving) return;
    this.resting = setTimeout(() => {
      if (this.running || !renderer.isReady(request)) return;
      void renderer
        .frame(request, lasting.signal, (pixels) => new Uint8ClampedArray(pixels))
        .then((pixels) => kept.keep(renderer.keyOf(request), request.region, pixels))
        .catch(() => {});
    }, AT_REST_MS);
  }
}
