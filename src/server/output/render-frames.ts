import { rowsOf } from '@/core/plane/region';
import type { Scene } from '@/core/scene/schema';
import type { Renderer } from '@/engine/renderer';
import type { Size } from '@/engine/sizes';
import { regionFor, straightened, takeRgb } from './render-picture';

/** Floats of one pixel of one layer of light, roughly: lamps, spill and air in three colours. */
const LAYER_FLOATS = 9;

/** Bytes of layers that shall be there at once, so that each is lit once for all frames. */
const LAYER_BYTES = 160e6;

const LEAST_ROWS = 32;

/** Frames of one plate that differ by what burns. */
export interface Frames {
  /** Of each, pixels. */
  size: Size;
  frames: number;
  /** The document of a frame. All are of one plate and one frame. */
  at: (frame: number) => Scene;
}

/**
 * Renders frames below one another: interleaved RGB, 8 bits, 3 * width * height a frame. Bands of rows are the outer loop: the light of
 * their layers is there while every frame mixes them.
 */
export async function renderFrames(
  renderer: Renderer,
  { size, frames, at }: Frames,
  signal: AbortSignal,
  onProgress: (done: number) => void,
): Promise<Uint8Array> {
  const scenes = Array.from({ length: frames }, (_, k) => at(k));
  const last = scenes[frames - 1];
  const region = regionFor(last, size);
  const bytes = 3 * region.width * region.height;
  const rgb = new Uint8Array(frames * bytes);
  const layers = last.circuits.length + last.touches.length + 2;
  const rows = Math.floor(LAYER_BYTES / (4 * LAYER_FLOATS * layers * region.width));
  const step = Math.min(region.height, Math.max(LEAST_ROWS, rows));
  for (let top = 0; top < region.height; top += step) {
    const band = rowsOf(region, top, Math.min(step, region.height - top));
    for (const [k, scene] of scenes.entries()) {
      const first = k * bytes + 3 * top * region.width;
      await renderer.frame({ scene, region: band, turn: 'later' }, signal, (pixels) =>
        takeRgb(rgb, first, pixels),
      );
      onProgress((top + (band.height * (k + 1)) / frames) / region.height);
    }
  }
  const framed = 3 * size.width * size.height;
  if (framed === bytes && last.frame.angle === 0) return rgb;
  const out = new Uint8Array(frames * framed);
  for (let k = 0; k < frames; k++) {
    const one = rgb.subarray(k * bytes, (k + 1) * bytes);
    out.set(await straightened(one, region, last, size, signal), k * framed);
  }
  return out;
}
