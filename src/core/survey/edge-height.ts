import type { PlateFeatures } from './plate-features';

/** Colour counts more than lightness, since shade lies on every surface; what is below the grain is no edge. */
const EDGE = { lightness: 0.7, color: 2.5, grain: 0.02 } as const;

/** How high the edge between two pixels stands above a surface's own grain, in weighed Oklab. */
export function edgeHeight({ lightness, a, b }: PlateFeatures): (p: number, q: number) => number {
  return (p, q) => {
    const l = EDGE.lightness * (lightness[p] - lightness[q]);
    const da = EDGE.color * (a[p] - a[q]);
    const db = EDGE.color * (b[p] - b[q]);
    return Math.max(0, Math.sqrt(l * l + da * da + db * db) - EDGE.grain);
  };
}
