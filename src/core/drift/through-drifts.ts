import type { RgbPlanes } from '../plane/plane';

/** A light that drifts send on, and how it is weighed. */
export interface SentOn {
  /** cd/m2. */
  glow: Float32Array;
  color: readonly [number, number, number];
}

/** Leaves of a share what a cover lets through. */
function holdBack(through: Float32Array, cover: Float32Array): void {
  for (let i = 0; i < through.length; i++) through[i] *= 1 - cover[i];
}

/** What comes through of a light, and for what does not the ambient light on what holds it back. */
function mixThrough(out: Float32Array, light: Float32Array, through: Float32Array, ambient: number): void {
  for (let i = 0; i < out.length; i++) out[i] = ambient + through[i] * (light[i] - ambient);
}

function addWeighted(out: Float32Array, glow: Float32Array, weight: number): void {
  for (let i = 0; i < out.length; i++) out[i] += weight * glow[i];
}

/**
 * Light as drifts hold it back and send it on. All planes are of one length.
 *
 * @param through room for the share that comes through, 0 to 1
 * @param covers what each drift holds back, 0 to 1
 * @param ambient light on what holds back, scene-linear
 */
export function throughDrifts(
  out: Pick<RgbPlanes, 'r' | 'g' | 'b'>,
  through: Float32Array,
  light: Pick<RgbPlanes, 'r' | 'g' | 'b'>,
  covers: readonly Float32Array[],
  ambient: readonly [number, number, number],
  glows: readonly SentOn[],
): void {
  through.fill(1);
  for (const cover of covers) holdBack(through, cover);
  mixThrough(out.r, light.r, through, ambient[0]);
  mixThrough(out.g, light.g, through, ambient[1]);
  mixThrough(out.b, light.b, through, ambient[2]);
  for (const { glow, color } of glows) {
    addWeighted(out.r, glow, color[0]);
    addWeighted(out.g, glow, color[1]);
    addWeighted(out.b, glow, color[2]);
  }
}
