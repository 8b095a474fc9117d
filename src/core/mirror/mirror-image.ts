import type { RgbPlanes } from '../plane/plane';
import { bilinearLight } from './bilinear-light';
import type { MirrorMap } from './mirror-map';

/** Taps along the stretched image of a rough mirror, in standard deviations, and their shares of a Gaussian. */
const TAPS = [-1.6, -0.8, 0, 0.8, 1.6];
const SHARES = TAPS.map((at) => Math.exp((-at * at) / 2));
const ALL = SHARES.reduce((sum, share) => sum + share, 0);

/** A copy whose pixels are as large as this share of the blur along the view: taps on it leave no gaps. */
const OVERLAP = 0.6;

/** Smallest cosine between normal and view that narrows an image. */
const GRAZING = 0.05;

/** What is known of the pixels of a copy as mirrors. */
export interface Mirrors extends MirrorMap {
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
  levels: readonly RgbPlanes[],
  { u, v, behind, weight, alpha, facing }: Mirrors,
  focal: number,
): void {
  const { width, height } = levels[0];
  const light = new Float64Array(3);
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
      const step = along * scale;
      for (let k = 0; k < TAPS.length; k++) {
        bilinearLight(light, levels[level], x, y + TAPS[k] * step);
        const share = SHARES[k] / ALL;
        r += share * light[0];
        g += share * light[1];
        b += share * light[2];
      }
    }
    out[4 * i] = r;
    out[4 * i + 1] = g;
    out[4 * i + 2] = b;
    out[4 * i + 3] = weight[i];
  }
}
