import { blend, type Blend } from '../plane/blend';
import type { RgbPlanes } from '../plane/plane';

/** A light that drifts send on, and how it is weighed. */
export interface SentOn {
  /** cd/m2. */
  glow: Float32Array;
  color: readonly [number, number, number];
}

type Light = Pick<RgbPlanes, 'r' | 'g' | 'b'>;

/**
 * Light as drifts hold it back and send it on. All planes are of one length.
 *
 * @param through room for the share that comes through, 0 to 1
 * @param covers what each drift holds back, 0 to 1
 * @param ambient light on what holds back, scene-linear
 */
export function throughDrifts(
  out: Light,
  through: Float32Array,
  light: Light,
  covers: readonly Float32Array[],
  ambient: readonly [number, number, number],
  glows: readonly SentOn[],
  { holdBack, mixThrough, addWeighted }: Blend = blend,
): void {
  through.fill(1);
  for (const cover of covers) holdBack(through, cover);
  for (const [c, name] of (['r', 'g', 'b'] as const).entries()) {
    mixThrough(out[name], light[name], through, ambient[c]);
    for (const { glow, color } of glows) addWeighted(out[name], glow, color[c]);
  }
}
