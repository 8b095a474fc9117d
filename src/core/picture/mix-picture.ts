import { LUMINANCE } from '../color/luminance';
import { DISPLAY_CODE_STEPS } from '../film/display-codes';
import { FILM, filmCurve } from '../film/film-response';
import type { RgbPlanes } from '../plane/plane';
import type { LayerWeights, Weights } from './weights';

/** A layer's planes for a region, one float a pixel; the source plane has only the rows that a lamp reaches. */
export interface LayerPlanes {
  spill: Float32Array;
  /** What surfaces give back as mirrors, cd/m2; undefined where nothing shines. */
  shine?: Float32Array;
  air: Float32Array;
  source: Float32Array;
  /** First and last + 1 row of the region that `source` covers. */
  sourceRows: { from: number; to: number };
}

/** What is there without any lamp, for a region. */
export interface BasePlanes {
  /** Linear planes of what lamps light. */
  plate: RgbPlanes;
  /** The plate under the night's ambient light. */
  night: RgbPlanes;
  /** Way through haze, metres. */
  distance: Float32Array;
  /** Coverage by land; the rest is sky. */
  land: Float32Array;
}

/**
 * The sum, developed: `film(clear * (night + plate * spill + shine) + mist + air + source)` as display codes with full alpha.
 *
 * @param out RGBA codes, 4 * width * height: bytes, or 16-bit words with matching `codes`
 * @param layers planes beside `weights.layers`
 * @param codes table from `createDisplayCodes`, for 255 or 65535 levels
 * @param rows first and last + 1 row of the region to mix
 */
export function mixPicture(
  out: Uint8ClampedArray | Uint16Array,
  base: BasePlanes,
  layers: readonly LayerPlanes[],
  weights: Weights,
  codes: Uint16Array,
  rows: { from: number; to: number },
): void {
  const { width } = base.plate;
  const opaque = codes[DISPLAY_CODE_STEPS - 1];
  const channels = ([0, 1, 2] as const).map((c) => {
    const light = new Float32Array(width);
    const shone = new Float32Array(width);
    const added = new Float32Array(width);
    return { c, light, shone, added };
  });
  for (let y = rows.from; y < rows.to; y++) {
    const first = y * width;
    for (const row of channels) {
      row.light.fill(0);
      row.shone.fill(0);
      row.added.fill(0);
      layers.forEach((planes, k) => addLayerRow(row, planes, weights.layers[k], y, width));
    }
    developRow(out, base, first, channels[0], channels[1], channels[2], weights, codes, opaque);
  }
}

function addLayerRow(
  { c, light, shone, added }: ChannelRow,
  { spill, shine, air, source, sourceRows }: LayerPlanes,
  weights: LayerWeights,
  y: number,
  width: number,
): void {
  const [onPlate, inAir, onGlass] = [weights.spill[c], weights.air[c], weights.source[c]];
  const first = y * width;
  if (onPlate !== 0) for (let x = 0; x < width; x++) light[x] += onPlate * spill[first + x];
  if (shine) for (let x = 0; x < width; x++) shone[x] += weights.shine[c] * shine[first + x];
  if (inAir !== 0) for (let x = 0; x < width; x++) added[x] += inAir * air[first + x];
  if (onGlass === 0 || y < sourceRows.from || y >= sourceRows.to) return;
  const offset = (y - sourceRows.from) * width;
  for (let x = 0; x < width; x++) added[x] += onGlass * source[offset + x];
}

/** A row of one channel: what lights the plate, what surfaces shine with, what is added over all. */
interface ChannelRow {
  c: 0 | 1 | 2;
  light: Float32Array;
  shone: Float32Array;
  added: Float32Array;
}

function developRow(
  out: Uint8ClampedArray | Uint16Array,
  { plate, night, distance, land }: BasePlanes,
  first: number,
  red: ChannelRow,
  green: ChannelRow,
  blue: ChannelRow,
  { ambient, sky, mist }: Weights,
  codes: Uint16Array,
  opaque: number,
): void {
  const [wr, wg, wb] = LUMINANCE;
  const { develop } = filmCurve;
  const inset = FILM.inset;
  const keep = 1 - inset;
  const last = DISPLAY_CODE_STEPS - 1;
  const code = (display: number) =>
    codes[display <= 0 ? 0 : display >= 1 ? last : (Math.sqrt(display) * last + 0.5) | 0];
  for (let x = 0; x < plate.width; x++) {
    const i = first + x;
    const clear = Math.exp(-mist.perMetre * distance[i]);
    const veil = 1 - clear;
    const own = sky + (ambient - sky) * land[i];
    const landR = own * night.r[i] + plate.r[i] * red.light[x] + red.shone[x];
    const landG = own * night.g[i] + plate.g[i] * green.light[x] + green.shone[x];
    const landB = own * night.b[i] + plate.b[i] * blue.light[x] + blue.shone[x];
    const sr = clear * landR + veil * mist.color[0] + red.added[x];
    const sg = clear * landG + veil * mist.color[1] + green.added[x];
    const sb = clear * landB + veil * mist.color[2] + blue.added[x];
    const into = inset * (wr * sr + wg * sg + wb * sb);
    const dr = develop(keep * sr + into);
    const dg = develop(keep * sg + into);
    const db = develop(keep * sb + into);
    const back = inset * (wr * dr + wg * dg + wb * db);
    const o = 4 * i;
    out[o] = code((dr - back) / keep);
    out[o + 1] = code((dg - back) / keep);
    out[o + 2] = code((db - back) / keep);
    out[o + 3] = opaque;
  }
}
