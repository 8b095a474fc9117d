import { LUMINANCE } from '../color/luminance';
import type { RgbPlanes } from '../plane/plane';
import { stopsOf } from './even-out';

/** What is most seen of a part of a plate: how many pixels it has, and their median, stops. NaN of none. */
export interface Tone {
  pixels: number;
  level: number;
}

/**
 * The tones of parts of a plate.
 *
 * @param part of each pixel: from 1 on, 0 for none
 * @param count how many parts there are
 */
export function tonesOf({ r, g, b }: RgbPlanes, part: ArrayLike<number>, count: number): Tone[] {
  const sizes = new Uint32Array(count + 1);
  for (let i = 0; i < r.length; i++) sizes[part[i]]++;
  const stops = Array.from(sizes, (size) => new Float32Array(size));
  const next = new Uint32Array(count + 1);
  for (let i = 0; i < r.length; i++) {
    const own = part[i];
    if (own === 0) continue;
    stops[own][next[own]++] = stopsOf(LUMINANCE[0] * r[i] + LUMINANCE[1] * g[i] + LUMINANCE[2] * b[i]);
  }
  return stops.slice(1).map((values) => {
    values.sort();
    return { pixels: values.length, level: values[values.length >> 1] ?? NaN };
  });
}
