import { LUMINANCE } from '../color/luminance';
import type { RgbPlanes } from '../plane/plane';
import type { Region } from '../plane/region';
import type { LensSettings } from './lens-schema';

/** Pixels across the sensor whose noise is drawn; a picture of another size averages, or enlarges, what they say. */
const SENSOR = 6000;

/** Electrons that white comes to at ISO 100, and those that reading a pixel adds (standard deviation). */
const ELECTRONS = { white: 40_000, read: 3 } as const;

/** Entries of a table of deviates: a power of two. */
export const DEVIATES = 65536;

/** What a seed is greater by where more bits of a place are drawn. */
export const SECOND_GRAIN = 10_007;

/**
 * Deviates in the order of their quantiles, of a logistic distribution: nearly a normal one, and its quantiles have a closed form.
 *
 * @param out DEVIATES floats
 */
export function fillDeviates(out: Float32Array): void {
  for (let k = 0; k < DEVIATES; k++) {
    const p = (k + 0.5) / DEVIATES;
    out[k] = Math.log(p / (1 - p));
  }
  // Exactly of variance 1.
  const spread = Math.sqrt(out.reduce((sum, value) => sum + value * value, 0) / DEVIATES);
  for (let k = 0; k < DEVIATES; k++) out[k] /= spread;
}

/** Bits of a place and a seed, stirred (Wellons 2018, lowbias32). */
function bitsAt(x: number, y: number, seed: number): number {
  let h = (Math.imul(x, 0x9e3779b1) ^ Math.imul(y, 0x85ebca6b) ^ Math.imul(seed, 0x27d4eb2f)) | 0;
  h = Math.imul(h ^ (h >>> 16), 0x7feb352d);
  h = Math.imul(h ^ (h >>> 15), 0x846ca68b);
  return h ^ (h >>> 16);
}

/** Four deviates of a place: one that all channels share, and one of each channel's own. */
function deviatesAt(out: Float64Array, table: Float32Array, x: number, y: number, seed: number): void {
  const first = bitsAt(x, y, seed);
  const second = bitsAt(x, y, seed + SECOND_GRAIN);
  out[0] = table[first & 0xffff];
  out[1] = table[first >>> 16];
  out[2] = table[second & 0xffff];
  out[3] = table[second >>> 16];
}

/**
 * Fills a row with deviates, four a pixel. Grains that are larger than a pixel lie on a lattice, with lines between its places; smaller
 * ones are one a pixel, and `addGrain` lessens them by what averaging takes.
 */
function deviateRow(
  out: Float64Array,
  table: Float32Array,
  seed: number,
  left: number,
  y: number,
  perPixel: number,
): void {
  const place = new Float64Array(4);
  const count = out.length / 4;
  if (perPixel <= 1) {
    for (let x = 0; x < count; x++) {
      deviatesAt(place, table, left + x, y, seed);
      out.set(place, 4 * x);
    }
    return;
  }
  const row = Math.floor(y / perPixel);
  const down = y / perPixel - row;
  const [upper, lower] = [new Float64Array(8), new Float64Array(8)];
  let known = NaN;
  for (let x = 0; x < count; x++) {
    const at = (left + x) / perPixel;
    const column = Math.floor(at);
    if (column !== known) {
      for (const [rows, line] of [
        [upper, row],
        [lower, row + 1],
      ] as const) {
        for (let side = 0; side < 2; side++) {
          deviatesAt(place, table, column + side, line, seed);
          rows.set(place, 4 * side);
        }
      }
      known = column;
    }
    const aside = at - column;
    // Between its places a lattice varies less: that is made up for.
    const spread = Math.sqrt(((1 - aside) ** 2 + aside ** 2) * ((1 - down) ** 2 + down ** 2));
    for (let c = 0; c < 4; c++) {
      const above = upper[c] + aside * (upper[4 + c] - upper[c]);
      const below = lower[c] + aside * (lower[4 + c] - lower[c]);
      out[4 * x + c] = (above + down * (below - above)) / spread;
    }
  }
}

/** What noise comes to in a picture. */
export interface GrainStrength {
  /** Shares of the deviate that channels have in common and of each one's own: noise of mixed channels is as strong as common noise. */
  common: number;
  own: number;
  /** By how much averaging the sensor's pixels lessens it. */
  scale: number;
  /** Variance: that of light 1, and that of reading. */
  perWhite: number;
  read: number;
  /** Pixels of the picture that a grain is broad. */
  perPixel: number;
}

/** @param fullWidth of the whole picture, pixels */
export function grainStrength(
  { iso, size, color }: Omit<LensSettings['grain'], 'seed'>,
  fullWidth: number,
): GrainStrength {
  const perWhite = iso / (ELECTRONS.white * 100);
  const perPixel = (size * fullWidth) / SENSOR;
  const both = Math.sqrt((1 - color) ** 2 + color ** 2);
  return {
    ...{ common: (1 - color) / both, own: color / both, scale: Math.min(1, perPixel) },
    ...{ perWhite, read: (ELECTRONS.read * perWhite) ** 2, perPixel },
  };
}

/**
 * Adds the grain of a night exposure: shot noise, which goes with the root of the light, and that of reading it, which is the same
 * everywhere and so shows in the dark. A picture of any size shows what averaging the sensor's pixels leaves.
 *
 * @param light of the picture, of the region; 1 is white
 * @param deviates as `fillDeviates` leaves them
 */
export function addGrain(
  light: RgbPlanes,
  settings: LensSettings['grain'],
  deviates: Float32Array,
  region: Region,
): void {
  const { common, own, scale, perWhite, read, perPixel } = grainStrength(settings, region.fullWidth);
  const row = new Float64Array(4 * region.width);
  const { r, g, b } = light;
  for (let y = 0, i = 0; y < region.height; y++) {
    deviateRow(row, deviates, settings.seed, region.left, region.top + y, perPixel);
    for (let x = 0; x < region.width; x++, i++) {
      const grey = LUMINANCE[0] * r[i] + LUMINANCE[1] * g[i] + LUMINANCE[2] * b[i];
      const shared = common * row[4 * x];
      r[i] = noisy(r[i], grey, shared + own * row[4 * x + 1], scale, perWhite, read);
      g[i] = noisy(g[i], grey, shared + own * row[4 * x + 2], scale, perWhite, read);
      b[i] = noisy(b[i], grey, shared + own * row[4 * x + 3], scale, perWhite, read);
    }
  }
}

/** A channel's light with noise: half of what lights a pixel of the sensor is its own channel's, half comes of its neighbours. */
function noisy(
  value: number,
  grey: number,
  deviate: number,
  scale: number,
  perWhite: number,
  read: number,
): number {
  const light = Math.max(0, 0.5 * (value + grey));
  return Math.max(0, value + scale * Math.sqrt(light * perWhite + read) * deviate);
}
