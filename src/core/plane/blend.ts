/** Planes of one length, weighed and added. Kernels stand in for them. */
export interface Blend {
  /** Keeps of a plane what a cover, 0 to 1, leaves. */
  holdBack: (out: Float32Array, cover: Float32Array) => void;
  /** A light as far as it comes through, 0 to 1, and for the rest another. */
  mixThrough: (out: Float32Array, light: Float32Array, through: Float32Array, other: number) => void;
  addWeighted: (out: Float32Array, light: Float32Array, weight: number) => void;
  /** Adds light where a coverage, 0 to 1, covers it; with `outside`, where it does not. */
  addCovered: (out: Float32Array, light: Float32Array, coverage: Float32Array, outside: boolean) => void;
}

export const blend: Blend = {
  holdBack(out, cover) {
    for (let i = 0; i < out.length; i++) out[i] *= 1 - cover[i];
  },
  mixThrough(out, light, through, other) {
    for (let i = 0; i < out.length; i++) out[i] = other + through[i] * (light[i] - other);
  },
  addWeighted(out, light, weight) {
    for (let i = 0; i < out.length; i++) out[i] += weight * light[i];
  },
  addCovered(out, light, coverage, outside) {
    const [base, slope] = outside ? [1, -1] : [0, 1];
    for (let i = 0; i < out.length; i++) out[i] += (base + slope * coverage[i]) * light[i];
  },
};

/**
 * Adds light that a coverage holds back: only where it covers, or, with `outside`, only where it does not. Without a coverage all of it
 * is added.
 */
export function addMasked(
  out: Float32Array,
  light: Float32Array,
  coverage: Float32Array | undefined,
  outside = false,
  { addCovered, addWeighted }: Pick<Blend, 'addCovered' | 'addWeighted'> = blend,
): void {
  if (coverage) addCovered(out, light, coverage, outside);
  else addWeighted(out, light, 1);
}
