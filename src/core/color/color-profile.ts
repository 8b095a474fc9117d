/** How the codes of a picture stand for light: a curve a channel, and a matrix (as in ICC.1:2022, matrix and curves). */
export interface ColorProfile {
  /** Light of red, green and blue by code, 0 to 1: one entry for each code that a sample can have. */
  curves: readonly [Float32Array, Float32Array, Float32Array];
  /** From the profile's red, green and blue to linear sRGB, row by row. */
  matrix: readonly number[];
}

/** Turns a run of linear light of a profile into linear sRGB, in place. `light` is interleaved RGB. */
export function applyMatrix(light: Float32Array, matrix: readonly number[]): void {
  const [rr, rg, rb, gr, gg, gb, br, bg, bb] = matrix;
  for (let i = 0; i < light.length; i += 3) {
    const r = light[i];
    const g = light[i + 1];
    const b = light[i + 2];
    light[i] = rr * r + rg * g + rb * b;
    light[i + 1] = gr * r + gg * g + gb * b;
    light[i + 2] = br * r + bg * g + bb * b;
  }
}
