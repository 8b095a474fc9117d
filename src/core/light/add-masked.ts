/**
 * Adds a plane of light that a coverage holds back to another: only where it covers, or, with `outside`, only where it
 * does not. Without a coverage all of it is added.
 */
export function addMasked(
  out: Float32Array,
  light: Float32Array,
  coverage: Float32Array | undefined,
  outside = false,
): void {
  if (!coverage) for (let i = 0; i < out.length; i++) out[i] += light[i];
  else if (outside) for (let i = 0; i < out.length; i++) out[i] += light[i] * (1 - coverage[i]);
  else for (let i = 0; i < out.length; i++) out[i] += light[i] * coverage[i];
}
