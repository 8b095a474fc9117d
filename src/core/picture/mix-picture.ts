import type { RgbPlanes } from '../plane/plane';
import type { LayerWeights, Weights } from './weights';

/** A layer's planes for a region, one float a pixel; the source plane has only the rows that a lamp reaches. */
export interface LayerPlanes {
  spill: Float32Array;
  /** What surfaces give back as mirrors, cd/m2; undefined where nothing shines. */
  shine?: Float32Array;
  /** What the air scatters; undefined where nothing does. */
  air?: Float32Array;
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
 * The sum of all light: `clear * (night + plate * spill + shine) + mist + air + source`, scene-linear under the night's exposure.
 *
 * @param out planes of the region
 * @param layers planes beside `weights.layers`
 * @param rows first and last + 1 row of the region to mix
 */
export function mixPicture(
  out: RgbPlanes,
  base: BasePlanes,
  layers: readonly LayerPlanes[],
  weights: Weights,
  rows: { from: number; to: number },
): void {
  const { width } = base.plate;
  const channels = ([0, 1, 2] as const).map((c) => {
    const light = new Float32Array(width);
    const shone = new Float32Array(width);
    const added = new Float32Array(width);
    return { c, light, shone, added };
  });
  for (let y = rows.from; y < rows.to; y++) {
    for (const row of channels) {
      row.light.fill(0);
      row.shone.fill(0);
      row.added.fill(0);
      layers.forEach((planes, k) => addLayerRow(row, planes, weights.layers[k], y, width));
      sumRow(out, base, y * width, row, weights);
    }
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
  if (air) for (let x = 0; x < width; x++) added[x] += inAir * air[first + x];
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

const CHANNELS = ['r', 'g', 'b'] as const;

function sumRow(
  out: RgbPlanes,
  { plate, night, distance, land }: BasePlanes,
  first: number,
  { c, light, shone, added }: ChannelRow,
  { ambient, sky, mist }: Weights,
): void {
  const [sum, ambientLit, day] = [out, night, plate].map((planes) => planes[CHANNELS[c]]);
  for (let x = 0, i = first; x < plate.width; x++, i++) {
    const clear = Math.exp(-mist.perMetre * distance[i]);
    const own = sky + (ambient - sky) * land[i];
    const seen = own * ambientLit[i] + day[i] * light[x] + shone[x];
    sum[i] = clear * seen + (1 - clear) * mist.color[c] + added[x];
  }
}
