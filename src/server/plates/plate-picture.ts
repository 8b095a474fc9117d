import { setImmediate } from 'node:timers/promises';
import { applyMatrix, type ColorProfile } from '@/core/color/color-profile';
import { linearOfCodes } from '@/core/color/srgb-codes';
import { createAreaShrink } from '@/core/plane/area-shrink';
import type { Region } from '@/core/plane/region';
import type { CodeLoops } from '@/engine/kernels/code-loops';
import type { Size } from '@/engine/sizes';
import type { PictureCodes } from './decode-codes';
import type { PlatePicture } from './open-plate';

/** Pixels that are worked on before other requests get their turn. */
const TURN_PIXELS = 5e5;

/** Rows of a picture, counted from its top. */
interface Rows {
  from: number;
  to: number;
}

/** Does rows of something, a turn at a time, so that other requests are answered in between. */
async function inTurns(
  height: number,
  pixelsPerRow: number,
  work: (rows: Rows) => void,
  signal?: AbortSignal,
): Promise<void> {
  const rows = Math.max(1, Math.floor(TURN_PIXELS / pixelsPerRow));
  for (let from = 0; from < height; from += rows) {
    signal?.throwIfAborted();
    work({ from, to: Math.min(height, from + rows) });
    await setImmediate();
  }
}

/** Cuts rows of a region out of a picture in sRGB. */
function cutCodes(
  out: Uint16Array,
  { data, width }: PictureCodes,
  region: Region,
  { widen }: CodeLoops,
  { from, to }: Rows,
): void {
  const row = 3 * region.width;
  for (let y = from; y < to; y++) {
    const start = 3 * ((region.top + y) * width + region.left);
    const own = data.subarray(start, start + row);
    if (own instanceof Uint16Array) out.set(own, y * row);
    else widen(out.subarray(y * row, (y + 1) * row), own);
  }
}

/** Prepares what cuts rows of a region out of a picture in colours of its own. */
function createColorCut(
  out: Uint16Array,
  { data, width }: PictureCodes,
  { curves, matrix }: ColorProfile,
  region: Region,
  { encode }: CodeLoops,
): (rows: Rows) => void {
  const [red, green, blue] = curves;
  const row = 3 * region.width;
  const light = new Float32Array(row);
  return ({ from, to }) => {
    for (let y = from; y < to; y++) {
      const start = 3 * ((region.top + y) * width + region.left);
      for (let i = 0; i < row; i += 3) {
        light[i] = red[data[start + i]];
        light[i + 1] = green[data[start + i + 1]];
        light[i + 2] = blue[data[start + i + 2]];
      }
      applyMatrix(light, matrix);
      encode(out.subarray(y * row, (y + 1) * row), light);
    }
  };
}

/** The codes of a region of a picture at its own size, as 16-bit codes of sRGB. */
export async function cutPlate(
  picture: PlatePicture,
  region: Region,
  loops: CodeLoops,
  signal?: AbortSignal,
): Promise<Uint16Array> {
  const out = new Uint16Array(3 * region.width * region.height);
  const cut = picture.colors
    ? createColorCut(out, picture, picture.colors, region, loops)
    : (rows: Rows) => cutCodes(out, picture, region, loops, rows);
  await inTurns(region.height, region.width, cut, signal);
  return out;
}

/** A picture at a smaller size, averaged in linear light, as 16-bit codes of sRGB. */
export async function shrinkPlate(
  { data, width, height, colors }: PlatePicture,
  size: Size,
  { createRows, encode }: CodeLoops,
  signal?: AbortSignal,
): Promise<Uint16Array> {
  const own = colors ? undefined : linearOfCodes(data.BYTES_PER_ELEMENT === 1 ? 255 : 65535);
  const curves = colors?.curves ?? ([own!, own!, own!] as const);
  const linear = new Float32Array(3 * size.width * size.height);
  const codes = new Uint16Array(linear.length);
  const fill = createAreaShrink(linear, { codes: data, width, height, curves }, size, createRows);
  await inTurns(
    size.height,
    (width * height) / size.height,
    ({ from, to }) => {
      fill({ from, to });
      const rows = linear.subarray(3 * size.width * from, 3 * size.width * to);
      if (colors) applyMatrix(rows, colors.matrix);
      encode(codes.subarray(3 * size.width * from, 3 * size.width * to), rows);
    },
    signal,
  );
  return codes;
}
