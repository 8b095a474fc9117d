import type { Rgb } from './rgb';
import { unitLuminance } from './luminance';

/** Second radiation constant, metre kelvin (CODATA). */
const C2 = 1.438776877e-2;

/** One lobe with different widths left and right of its peak. Wavelengths in nanometres. */
function lobe(nm: number, peak: number, left: number, right: number): number {
  const t = (nm - peak) * (nm < peak ? left : right);
  return Math.exp(-0.5 * t * t);
}

/** CIE 1931 2-degree colour matching functions, multi-lobe fit of Wyman, Sloan and Shirley 2013 (JCGT 2-2). */
function matching(nm: number): Rgb {
  return [
    1.056 * lobe(nm, 599.8, 0.0264, 0.0323) +
      0.362 * lobe(nm, 442, 0.0624, 0.0374) -
      0.065 * lobe(nm, 501.1, 0.049, 0.0382),
    0.821 * lobe(nm, 568.8, 0.0213, 0.0247) + 0.286 * lobe(nm, 530.9, 0.0613, 0.0322),
    1.217 * lobe(nm, 437, 0.0845, 0.0278) + 0.681 * lobe(nm, 459, 0.0385, 0.0725),
  ];
}

/** CIE XYZ of a black body at a temperature in kelvin, scaled to Y = 1. */
export function planckianXyz(kelvin: number): Rgb {
  const sum = [0, 0, 0];
  for (let nm = 380; nm <= 780; nm += 5) {
    const metres = nm * 1e-9;
    const power = 1 / ((nm / 560) ** 5 * (Math.exp(C2 / (metres * kelvin)) - 1));
    matching(nm).forEach((weight, i) => (sum[i] += weight * power));
  }
  return [sum[0] / sum[1], 1, sum[2] / sum[1]];
}

/** Linear sRGB from CIE XYZ relative to D65 (IEC 61966-2-1). */
export function xyzToSrgb([x, y, z]: Rgb): Rgb {
  return [
    3.2406 * x - 1.5372 * y - 0.4986 * z,
    -0.9689 * x + 1.8758 * y + 0.0415 * z,
    0.0557 * x - 0.204 * y + 1.057 * z,
  ];
}

/** Coolest and hottest temperature that a colour is given for, kelvin. */
export const KELVIN_RANGE = [1000, 25000] as const;

/**
 * Colour of a black body as a camera balanced for `white` kelvin sees it: linear sRGB of luminance 1, no channel
 * below 0. Equal temperatures give [1, 1, 1]. The balance is a gain per channel in linear sRGB. Temperatures are
 * clamped to KELVIN_RANGE.
 */
export function blackbodyRgb(kelvin: number, white: number): Rgb {
  const [low, high] = KELVIN_RANGE;
  const clamped = (t: number) => Math.min(Math.max(t, low), high);
  const color = xyzToSrgb(planckianXyz(clamped(kelvin)));
  const base = xyzToSrgb(planckianXyz(clamped(white)));
  const gain = (i: 0 | 1 | 2) => Math.max(0, color[i]) / Math.max(1e-3, base[i]);
  return unitLuminance([gain(0), gain(1), gain(2)]);
}
