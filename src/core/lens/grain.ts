import { LUMINANCE } from '../color/luminance';
import type { RgbPlanes } from '../plane/plane';
import type { Region } from '../plane/region';
import type { LensSettings } from './lens-schema';

/** Pixels across the sensor whose noise is drawn; a picture of another size averages, or enlarges, what they say. */
const SENSOR = 6000;

/** Electrons that white comes to at ISO 100, and those that reading a pixel adds (standard deviation). */
const ELECTRONS = { white: 40_000, read: 3 } as const;

/** A number from -0.5 to 0.5 of a place and a seed: bits stirred (Wellons 2018, lowbias32). */
function noiseAt(x: number, y: number, seed: number): number {
  let h = (Math.imul(x, 0x9e3779b1) ^ Math.imul(y, 0x85ebca6b) ^ seed) | 0;
  h = Math.imul(h ^ (h >>> 16), 0x7feb352d);
  h = Math.imul(h ^ (h >>> 15), 0x846ca68b);
  return ((h ^ (h >>> 16)) >>> 0) / 4294967296 - 0.5;
}

/** Variance of a number from -0.5 to 0.5; of the sum of two it is twice that. */
const VARIANCE = 1 / 12;

/** What noise is at a pixel: two numbers of it and of a lattice of grains, where a grain is larger than a pixel. */
function grainAt(x: number, y: number, perPixel: number, seed: number): number {
  if (perPixel <= 1) return (noiseAt(x, y, seed) + noiseAt(x, y, seed + 7919)) / Math.sqrt(2 * VARIANCE);
  const [u, v] = [x / perPixel, y / perPixel];
  const [i, j] = [Math.floor(u), Math.floor(v)];
  const [p, q] = [u - i, v - j];
  const sum =
    (1 - p) * (1 - q) * noiseAt(i, j, seed) +
    p * (1 - q) * noiseAt(i + 1, j, seed) +
    (1 - p) * q * noiseAt(i, j + 1, seed) +
    p * q * noiseAt(i + 1, j + 1, seed);
  const spread = ((1 - p) ** 2 + p * p) * ((1 - q) ** 2 + q * q);
  return sum / Math.sqrt(VARIANCE * spread);
}

/**
 * Adds the grain of a night exposure: shot noise, which goes with the root of the light, and that of reading it, which is the same
 * everywhere and so shows in the dark. A picture of any size shows what averaging the sensor's pixels leaves.
 *
 * @param light of the picture, of the region; 1 is white
 */
export function addGrain(
  light: RgbPlanes,
  { iso, size, color, seed }: LensSettings['grain'],
  region: Region,
): void {
  const white = (ELECTRONS.white * 100) / iso;
  const perPixel = (size * region.fullWidth) / SENSOR;
  // Of grains smaller than a pixel the mean is taken, over as many of them as it holds.
  const scale = Math.min(1, perPixel);
  const read = (ELECTRONS.read / white) ** 2;
  const { r, g, b } = light;
  for (let y = 0, i = 0; y < region.height; y++) {
    const row = region.top + y;
    for (let x = 0; x < region.width; x++, i++) {
      const column = region.left + x;
      const grey = LUMINANCE[0] * r[i] + LUMINANCE[1] * g[i] + LUMINANCE[2] * b[i];
      const common = grainAt(column, row, perPixel, seed);
      const own = (channel: number) =>
        color === 0
          ? common
          : common + color * (grainAt(column, row, perPixel, seed + 101 * channel) - common);
      const noise = (value: number, channel: number) =>
        scale * Math.sqrt(Math.max(0, 0.5 * (value + grey)) / white + read) * own(channel);
      const [nr, ng, nb] = [noise(r[i], 1), noise(g[i], 2), noise(b[i], 3)];
      r[i] = Math.max(0, r[i] + nr);
      g[i] = Math.max(0, g[i] + ng);
      b[i] = Math.max(0, b[i] + nb);
    }
  }
}
