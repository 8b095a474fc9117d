import { linearOfCodes } from '@/core/color/srgb-codes';
import { srgb } from '@/core/color/srgb';
import { LUMINANCE } from '@/core/color/luminance';
import { liftFrom } from '@/core/survey/day-balance';
import type { Picture } from './picture';

/** Pixels are looked at in steps of so many. */
const STEP = 7;

/** A picture as if it were exposed as one of the day is: edges in a dark one are as high as in a light one. The picture itself where it is. */
export function dayCodes(picture: Picture): Picture {
  const { rgb } = picture;
  const linear = linearOfCodes(255);
  const lightness = new Float32Array(Math.ceil(rgb.length / 3 / STEP));
  for (let i = 0; i < lightness.length; i++) {
    const at = 3 * STEP * i;
    lightness[i] = Math.cbrt(
      LUMINANCE[0] * linear[rgb[at]] +
        LUMINANCE[1] * linear[rgb[at + 1]] +
        LUMINANCE[2] * linear[rgb[at + 2]],
    );
  }
  const gain = liftFrom(lightness) ** 3;
  if (gain === 1) return picture;
  const codes = Uint8Array.from(linear, (light) => Math.round(255 * srgb.encode(Math.min(1, gain * light))));
  return { ...picture, rgb: rgb.map((code) => codes[code]) };
}
