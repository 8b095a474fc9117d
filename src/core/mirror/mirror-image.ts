import { bilinearKnown, type KnownLight } from './bilinear-light';
import type { MirrorMap } from './mirror-map';

/** Taps along the stretched image of a rough mirror: how far apart they lie, standard deviations, and their places among them. */
export const TAP = 0.8;
const TAPS = [-2, -1, 0, 1, 2];
const WEIGHTS = TAPS.map((at) => Math.exp(-((at * TAP) ** 2) / 2));

/** Their shares of a Gaussian. */
export const SHARES = WEIGHTS.map((weight) => weight / WEIGHTS.reduce((sum, one) => sum + one, 0));

/** A copy whose pixels are as large as this share of the blur along the view: taps on it leave no gaps. */
export const OVERLAP = 0.6;

/** Smallest cosine between normal and view that narrows an image. */
export const GRAZING = 0.05;

/** What is known of the pixels of a copy as mirrors. */
export interface Mirrors extends Omit<MirrorMap, 'ripples'> {
  /** Width of the facets: the square of a roughness. */
  alpha: Float32Array;
  /** Cosine between normal and view. */
  facing: Float32Array;
}

/**
 * The light that pixels of a copy show as mirrors, before their Fresnel: what they see, blurred by their roughness the more the farther
 * that lies behind them. A lobe of facets is as wide along the view as its slope says, and across it the less the more grazing the
 * view is, so images are stretched toward the eye.
 *
 * @param out four floats a pixel of the part of the copy that `mirrors` has: its light and 1, or all 0 where nothing mirrors
 * @param levels the pyramid of the whole copy's light, without what lamps themselves show: their images come with their shine
 * @param focal length in plate widths
 */
export function mirrorImage(
  out: Float32Array,
  levels: readonly KnownLight[],
  { u, v, behind, weight, alpha, facing }: Mirrors,
  focal: number,
): void {
  const { width, height } = levels[0];
  const light = new Float64Array(4);
  for (let i = 0; i < weight.length; i++) {
    let [r, g, b] = [0, 0, 0];
    if (weight[i] > 0) {
      const along = 2 * alpha[i] * behind[i] * focal * width;
      const aside = along * Math.max(GRAZING, facing[i]);
      const blur = Math.max(1, aside, OVERLAP * along);
      const level = Math.min(levels.length - 1, Math.round(Math.log2(blur)));
      const scale = 1 / (1 << level);
      const x = u[i] * width * scale - 0.5;
      const y = v[i] * height * scale - 0.5;
      const step = TAP * along * scale;
      for (let k = 0; k < TAPS.length; k++) {
        bilinearKnown(light, levels[level], x, y + TAPS[k] * step);
        r += SHARES[k] * light[0];
        g += SHARES[k] * light[1];
        b += SHARES[k] * light[2];
      }
    }
    out[4 * i] = r;
    out[4 * i + 1] = g;
    out[4 * i + 2] = b;
    out[4 * i + 3] = weight[i];
  }
}
