import type { PlateFeatures } from './plate-features';

/** A colour with its lightness weighed down, since the ground lies partly in shade: in Oklab, or codes of CIELAB. */
export type Tone = readonly [lightness: number, a: number, b: number];

const TONES = { rows: 0.07, middle: 0.7, count: 6, rounds: 8 } as const;

/** What lightness counts beside colour. */
export const LIGHTNESS_WEIGHT = 0.4;

/** The tone of a pixel. */
export const toneAt = ({ softLightness, a, b }: PlateFeatures, i: number): Tone => [
  LIGHTNESS_WEIGHT * softLightness[i],
  a[i],
  b[i],
];

export const distanceToTone = (p: Tone, q: Tone): number => Math.hypot(p[0] - q[0], p[1] - q[1], p[2] - q[2]);

/** The nearest of some tones to one: which, and how far. */
export function nearestTone(tones: readonly Tone[], [l, a, b]: Tone): { index: number; distance: number } {
  let index = 0;
  let best = Infinity;
  for (let k = 0; k < tones.length; k++) {
    const d = (tones[k][0] - l) ** 2 + (tones[k][1] - a) ** 2 + (tones[k][2] - b) ** 2;
    if (d < best) [best, index] = [d, k];
  }
  return { index, distance: Math.sqrt(best) };
}

/** The few tones that stand for many, by k-means (Lloyd 1982), started evenly along lightness. */
export function meanTones(seeds: readonly Tone[]): Tone[] {
  const sorted = [...seeds].sort((p, q) => p[0] - q[0]);
  let tones = Array.from(
    { length: TONES.count },
    (_, k) => sorted[Math.floor(((k + 0.5) / TONES.count) * sorted.length)],
  );
  for (let round = 0; round < TONES.rounds; round++) {
    const sums = tones.map(() => [0, 0, 0, 0]);
    for (const seed of seeds) {
      const sum = sums[nearestTone(tones, seed).index];
      seed.forEach((value, c) => (sum[c] += value));
      sum[3]++;
    }
    tones = tones.map((tone, k): Tone => {
      const [l, a, b, count] = sums[k];
      return count > 0 ? [l / count, a / count, b / count] : tone;
    });
  }
  return tones;
}

/** The tones of the middle of the plate's lower edge. */
export function groundTones(features: PlateFeatures): Tone[] {
  const { width, height } = features;
  const seeds: Tone[] = [];
  const margin = Math.floor(((1 - TONES.middle) / 2) * width);
  for (let y = Math.min(height - 1, Math.floor(height * (1 - TONES.rows))); y < height; y++) {
    for (let x = margin; x < width - margin; x++) seeds.push(toneAt(features, y * width + x));
  }
  return meanTones(seeds);
}

/** Least pixels in which common tones are looked for. */
const FEW = 30;

/** The tones that a share of some pixels, or more, comes nearest to; none where pixels are few. */
export function commonTones(features: PlateFeatures, pixels: readonly number[], share: number): Tone[] {
  if (pixels.length < FEW) return [];
  const seeds = pixels.map((i) => toneAt(features, i));
  const tones = meanTones(seeds);
  const counts = tones.map(() => 0);
  for (const seed of seeds) counts[nearestTone(tones, seed).index]++;
  return tones.filter((_, k) => counts[k] >= share * seeds.length);
}

/** The tones of the pixels of which something holds; none where it holds of none. */
export function tonesWhere(features: PlateFeatures, holds: (i: number) => boolean): Tone[] {
  const seeds: Tone[] = [];
  for (let i = 0; i < features.a.length; i++) if (holds(i)) seeds.push(toneAt(features, i));
  return seeds.length > 0 ? meanTones(seeds) : [];
}

/** How far each pixel's colour is from the nearest of the tones, in weighed Oklab. */
export function distanceFromTones({ softLightness, a, b }: PlateFeatures, tones: Tone[]): Float32Array {
  const flat = Float64Array.from(tones.flat());
  const distance = new Float32Array(a.length);
  for (let i = 0; i < a.length; i++) {
    const lightness = LIGHTNESS_WEIGHT * softLightness[i];
    let least = Infinity;
    for (let k = 0; k < flat.length; k += 3) {
      const d = (flat[k] - lightness) ** 2 + (flat[k + 1] - a[i]) ** 2 + (flat[k + 2] - b[i]) ** 2;
      if (d < least) least = d;
    }
    distance[i] = Math.sqrt(least);
  }
  return distance;
}
