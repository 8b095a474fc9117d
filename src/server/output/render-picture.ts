import { setImmediate } from 'node:timers/promises';
import type { Scene } from '@/core/scene/schema';
import { framedSize } from '@/core/frame/frame';
import { framedRegion } from '@/core/frame/framed-region';
import { straightenRows } from '@/core/frame/straighten';
import { rowsOf, type Region } from '@/core/plane/region';
import type { Renderer } from '@/engine/renderer';
import { LEAST_SIDE, type Size } from '@/engine/sizes';
import type { Turn } from '@/engine/turn-queue';

/** Rows of a picture that are made at a time: bounds the memory of an output of any size. */
const BAND_ROWS = 256;

/**
 * A picture of so many pixels that somebody waits for is made at once: what one band has made would be gone when others had their turn
 * before the next.
 */
const SMALL_PICTURE = 400_000;

const WHOLE_PART = { left: 0, top: 0, width: 1, height: 1 };

/** Share of the work that the turning of a frame takes, where it is turned. */
const STRAIGHTENING = 0.1;

/** Codes of a picture, interleaved RGB. */
export type RgbCodes = Uint8Array | Uint16Array;

/** How deep a picture is: bits of a channel. */
export type Bits = 8 | 16;

const codesFor = (bits: Bits, pixels: number): RgbCodes =>
  bits === 8 ? new Uint8Array(3 * pixels) : new Uint16Array(3 * pixels);

/** Takes the colours of a frame's RGBA codes, from place `to` of `out` on. */
export function takeRgb(out: RgbCodes, to: number, pixels: Uint8ClampedArray | Uint16Array): void {
  for (let from = 0; from < pixels.length; from += 4) {
    out[to++] = pixels[from];
    out[to++] = pixels[from + 1];
    out[to++] = pixels[from + 2];
  }
}

/** A region of a picture as raw RGB codes, made band by band. */
async function renderRegion(
  renderer: Renderer,
  scene: Scene,
  region: Region,
  signal: AbortSignal,
  onProgress: (done: number) => void,
  turn: Turn,
  bits: Bits,
): Promise<RgbCodes> {
  const rgb = codesFor(bits, region.width * region.height);
  const isSmall = turn === 'soon' && region.width * region.height <= SMALL_PICTURE;
  const rows = isSmall ? region.height : BAND_ROWS;
  for (let top = 0; top < region.height; top += rows) {
    const band = rowsOf(region, top, Math.min(rows, region.height - top));
    const take = (pixels: Uint8ClampedArray | Uint16Array) => takeRgb(rgb, 3 * top * region.width, pixels);
    const request = { scene, region: band, turn };
    await (bits === 8 ? renderer.frame(request, signal, take) : renderer.deepFrame(request, signal, take));
    onProgress((top + band.height) / region.height);
  }
  return rgb;
}

/** The region of the plate that a framed picture of some size, or a part of it, is made from. */
export function regionFor({ plate, frame }: Scene, size: Size, part = WHOLE_PART): Region {
  const scale = size.width / framedSize(plate, frame).width;
  const scaled = (side: number) => Math.max(LEAST_SIDE, Math.round(side * scale));
  const full = { width: scaled(plate.width), height: scaled(plate.height) };
  return framedRegion(frame, part, full, plate.width / plate.height);
}

/** A finished picture, framed, as raw RGB codes of `size`. `onProgress` gets 0 to 1; `turn` says whether it can wait for others. */
export async function renderRgb(
  renderer: Renderer,
  scene: Scene,
  size: Size,
  signal: AbortSignal,
  onProgress: (done: number) => void = () => {},
  turn: Turn = 'soon',
  bits: Bits = 8,
): Promise<RgbCodes> {
  const region = regionFor(scene, size);
  const turning = isStraight(region, scene.frame, size) ? 0 : STRAIGHTENING;
  const rendered = (done: number) => onProgress(done * (1 - turning));
  const rgb = await renderRegion(renderer, scene, region, signal, rendered, turn, bits);
  const framed = await straightened(rgb, region, scene, size, signal);
  onProgress(1);
  return framed;
}

/** Whether a region is a framed picture as it stands. */
const isStraight = (region: Region, { angle }: Scene['frame'], size: Size): boolean =>
  angle === 0 && region.width === size.width && region.height === size.height;

/** A region's RGB as the frame shows it, a band at a time, so that other requests are answered in between. */
export async function straightened(
  rgb: RgbCodes,
  region: Region,
  { plate, frame }: Pick<Scene, 'plate' | 'frame'>,
  size: Size,
  signal: AbortSignal,
): Promise<RgbCodes> {
  if (isStraight(region, frame, size)) return rgb;
  const out = codesFor(rgb.BYTES_PER_ELEMENT === 1 ? 8 : 16, size.width * size.height);
  for (let from = 0; from < size.height; from += BAND_ROWS) {
    const to = Math.min(size.height, from + BAND_ROWS);
    const band = out.subarray(3 * size.width * from, 3 * size.width * to);
    straightenRows(band, rgb, region, frame, plate.width / plate.height, size, { from, to });
    await setImmediate();
    signal.throwIfAborted();
  }
  return out;
}
