import { filmResponse } from '@/core/film/film-response';
import { srgb } from '@/core/color/srgb';
import type { Rgb } from '@/core/color/rgb';

/** A linear colour of luminance 1 as the film shows it when it burns: for chips and knobs. */
export function litCss([r, g, b]: Rgb, level = 0.75): string {
  const shown = filmResponse([r * level, g * level, b * level]);
  return `rgb(${shown.map((light) => Math.round(255 * srgb.encode(light))).join(' ')})`;
}
