import { LUMINANCE } from '../color/luminance';
import { DISPLAY_CODE_STEPS } from '../film/display-codes';
import { FILM, filmCurve } from '../film/film-response';
import { highlightHold } from '../night/highlight-hold';
import type { RgbPlanes } from '../plane/plane';
import type { LayerWeights, Weights } from './weights';

/** A layer's planes for a region, one float a pixel; the source plane has only the rows that a lamp reaches. */
export interface LayerPlanes {
  spill: Float32Array;
  air: Float32Array;
  source: Float32Array;
  /** First and last + 1 row of the region that `source` covers. */
  sourceRows: { from: number; to: number };
}

/**
 * The sum, developed: `film(plate * (ambient + spill) + air + source)` as display codes with full alpha.
 *
 * @param out RGBA codes, 4 * width * height: bytes, or 16-bit words with matching `codes`
 * @param plate linear planes of the region
 * @param layers planes beside `weights.layers`
 * @param codes table from `createDisplayCodes`, for 255 or 65535 levels
 * @param rows first and last + 1 row of the region to mix
 */
export function mixPicture(
  out: Uint8ClampedArray | Uint16Array,
  plate: RgbPlanes,
  layers: readonly LayerPlanes[],
  weights: Weights,
  codes: Uint16Array,
  rows: { from: number; to: number },
): void {
  const { width } = plate;
  const opaque = codes[DISPLAY_CODE_STEPS - 1];
  const channels = ([0, 1, 2] as const).map((c) => {
    const light = new Float32Array(width);
    const added = new Float32Array(width);
    return { c, light, added };
  });
  for (let y = rows.from; y < rows.to; y++) {
    const first = y * width;
    for (const { c, light, added } of channels) {
      light.fill(0);
      added.fill(0);
      layers.forEach((planes, k) => addLayerRow(light, added, planes, weights.layers[k], c, y, width));
    }
    developRow(out, plate, first, channels[0], channels[1], channels[2], weights, codes, opaque);
  }
}

function addLayerRow(
  light: Float32Array,
  added: Float32Array,
  { spill, air, source, sourceRows }: LayerPlanes,
  weights: LayerWeights,
  c: 0 | 1 | 2,
  y: number,
  width: number,
): void {
  const [onPlate, inAir, onGlass] = [weights.spill[c], weights.air[c], weights.source[c]];
  const first = y * width;
  if (onPlate !== 0) for (let x = 0; x < width; x++) light[x] += onPlate * spill[first + x];
  if (inAir !== 0) for (let x = 0; x < width; x++) added[x] += inAir * air[first + x];
  if (onGlass === 0 || y < sourceRows.from || y >= sourceRows.to) return;
  const offset = (y - sourceRows.from) * width;
  for (let x = 0; x < width; x++) added[x] += onGlass * source[offset + x];
}

type ChannelRow = { light: Float32Array; added: Float32Array };

function developRow(
  out: Uint8ClampedArray | Uint16Array,
  plate: RgbPlanes,
  first: number,
  red: ChannelRow,
  green: ChannelRow,
  blue: ChannelRow,
  { ambient, saturation, grey: faded, hold }: Weights,
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
    const [r, g, b] = [plate.r[i], plate.g[i], plate.b[i]];
    const left = highlightHold(wr * r + wg * g + wb * b, hold);
    const grey = (1 - saturation) * Math.max(0, faded[0] * r + faded[1] * g + faded[2] * b);
    const sr = left * ambient[0] * (grey + saturation * r) + r * red.light[x] + red.added[x];
    const sg = left * ambient[1] * (grey + saturation * g) + g * green.light[x] + green.added[x];
    const sb = left * ambient[2] * (grey + saturation * b) + b * blue.light[x] + blue.added[x];
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
