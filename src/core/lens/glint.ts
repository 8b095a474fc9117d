/** A source that gets spikes: where it is seen, and its light, as light of the picture times a share of the picture's width squared. */
export interface Glint {
  u: number;
  v: number;
  r: number;
  g: number;
  b: number;
  from: GlintOrigin;
}

/** Where a source is known from: a fixture of the scene, light that was found in the picture, a place that a person said. */
export const GLINT_ORIGINS = ['fixture', 'found', 'said'] as const;
export type GlintOrigin = (typeof GLINT_ORIGINS)[number];

/** Floats that a glint takes in a table: place, light, origin. */
export const GLINT_STRIDE = 6;

/** Most sources that get spikes. */
export const MOST_GLINTS = 1024;

/** Writes glints into a table. Returns how many it took. */
export function writeGlints(out: Float32Array, glints: readonly Glint[]): number {
  const some = glints.slice(0, Math.floor(out.length / GLINT_STRIDE));
  some.forEach(({ u, v, r, g, b, from }, k) =>
    out.set([u, v, r, g, b, GLINT_ORIGINS.indexOf(from)], GLINT_STRIDE * k),
  );
  return some.length;
}

/** A glint of a table. */
export function readGlint(table: Float32Array, k: number): Glint {
  const [u, v, r, g, b, from] = table.subarray(GLINT_STRIDE * k, GLINT_STRIDE * (k + 1));
  return { u, v, r, g, b, from: GLINT_ORIGINS[from] };
}
