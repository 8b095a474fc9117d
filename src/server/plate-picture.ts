import { setImmediate } from 'node:timers/promises';
import { applyMatrix } from '@/core/color/color-profile';
import { linearOfCodes } from '@/core/color/srgb-codes';
import { createAreaShrink } from '@/core/plane/area-shrink';
import type { Region } from '@/core/plane/region';
import type { Size } from '@/engine/sizes';
import type { PlatePicture } from './open-plate';

/** Pixels that are worked on before other requests get their turn. */
const TURN_PIXELS = 5e5;

/** Writes linear light as 16-bit codes of sRGB. */
export type Encode = (out: Uint16Array, linear: Float32Array) => void;

/** Does rows of something, a turn at a time, so that other requests are answered in between. */
async function inTurns(
  height: number,
  pixelsPerRow: number,
  work: (from: number, to: number) => void,
  signal?: AbortSignal,
): Promise<void> {
  const rows = Math.max(1, Math.floor(TURN_PIXELS / pixelsPerRow));
  for (let from = 0; from < height; from += rows) {
    signal?.throwIfAborted();
    work(from, Math.min(height, from + rows));
    await setImmediate();
  }
}

/** The codes of a region of a picture at its own size, as 16-bit codes of sRGB. */
export async function cutPlate(
  { data, width, colors }: PlatePicture,
  region: Region,
  encode: Encode,
  signal?: AbortSignal,
): Promise<Uint16Array> {
  const out = new Uint16Array(3 * region.width * region.height);
  const row = 3 * region.width;
  const light = colors && new Float32Array(row);
  const factor = data.BYTES_PER_ELEMENT === 1 ? 257 : 1;
  const cutRow = (y: number) => {
    const from = 3 * ((region.top + y) * width + region.left);
    if (!colors || !light) {
      for (let i = 0; i < row; i++) out[y * row + i] = data[from + i] * factor;
      return;
    }
    const [red, green, blue] = colors.curves;
    for (let i = 0; i < row; i += 3) {
      light[i] = red[data[from + i]];
      light[i + 1] = green[data[from + i + 1]];
      light[i + 2] = blue[data[from + i + 2]];
    }
    applyMatrix(light, colors.matrix);
    encode(out.subarray(y * row, (y + 1) * row), light);
  };
  await inTurns(
    region.height,
    region.width,
    (from, to) => {
      for (let y = from; y < to; y++) cutRow(y);
    },
    signal,
  );
  return out;
}

/** A picture at a smaller size, averaged in linear light, as 16-bit codes of sRGB. */
export async function shrinkPlate(
  { data, width, height, colors }: PlatePicture,
  size: Size,
  encode: Encode,
  signal?: AbortSignal,
): Promise<Uint16Array> {
  const own = colors ? undefined : linearOfCodes(data.BYTES_PER_ELEMENT === 1 ? 255 : 65535);
  const curves = colors?.curves ?? ([own!, own!, own!] as const);
  const linear = new Float32Array(3 * size.width * size.height);
  const codes = new Uint16Array(linear.length);
  const fill = createAreaShrink(linear, { codes: data, width, height, curves }, size);
  await inTurns(
    size.height,
    (width * height) / size.height,
    (from, to) => {
      fill({ from, to });
      const rows = linear.subarray(3 * size.width * from, 3 * size.width * to);
      if (colors) applyMatrix(rows, colors.matrix);
      encode(codes.subarray(3 * size.width * from, 3 * size.width * to), rows);
    },
    signal,
  );
  return codes;
}
