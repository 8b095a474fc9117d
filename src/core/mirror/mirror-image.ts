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

/** A picture of half the size, of means over two by two pixels. */
function halved({ width, height, r, g, b }: RgbPlanes): RgbPlanes {
  const [wide, high] = [Math.max(1, width >> 1), Math.max(1, height >> 1)];
  const half = (plane: Float32Array) => {
    const out = new Float32Array(wide * high);
    const right = width > 1 ? 1 : 0;
    const below = height > 1 ? width : 0;
    for (let y = 0, i = 0; y < high; y++) {
      for (let x = 0, k = 2 * y * width; x < wide; x++, i++, k += 2)
        out[i] = (plane[k] + plane[k + right] + plane[k + below] + plane[k + right + below]) / 4;
    }
    return out;
  };
  return { width: wide, height: high, r: half(r), g: half(g), b: half(b) };
}

/** A picture and ever smaller copies of it. */
export function lightPyramid(light: RgbPlanes): RgbPlanes[] {
  const levels = [light];
  for (let last = light; Math.min(last.width, last.height) > 4; levels.push(last)) last = halved(last);
  return levels;
}

/**
 * The light that pixels of a copy show as mirrors, before their Fresnel: what they see, blurred by their roughness the more the farther
 * that lies behind them. A lobe of facets is as wide along the view as its slope says, and across it the less the more grazing the
 * view is, so images are stretched toward the eye.
 *
 * @param out four floats a pixel of the part of the copy that `mirrors` has: its light and 1, or all 0 where nothing mirrors
 * @param levels of the whole copy's light, without what lamps themselves show: their images come with their shine
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
