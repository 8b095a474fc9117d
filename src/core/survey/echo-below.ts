import { hypot } from '../plane/hypot';
import type { PlateFeatures } from './plate-features';
import type { SkyPatch } from './sky-patches';

/** What looks the same: lightness and Oklab colour may differ by so much. A few pixels below an end are its soft rim. */
const SAME = { lightness: 0.05, color: 0.015, rim: 3 } as const;

/**
 * How much of what lies between a patch's lower end and the horizon looks like the patch again, 0 to 1: sky ends where land begins, the panels
 * of a facade come back storey by storey.
 *
 * @param like 1 for what looks like sky @param over 1 over the horizon
 */
export function echoBelow(
  { width, height, softLightness, a, b }: PlateFeatures,
  patch: SkyPatch,
  like: Uint8Array,
  over: Uint8Array,
): number {
  const end = new Int32Array(width).fill(height);
  for (const i of patch.pixels) {
    const [x, y] = [i % width, Math.floor(i / width)];
    end[x] = end[x] === height ? y : Math.max(end[x], y);
  }
  let [same, all] = [0, 0];
  end.forEach((from, x) => {
    for (let i = (from + SAME.rim) * width + x; i < over.length && over[i]; i += width) {
      all++;
      if (!like[i] || Math.abs(softLightness[i] - patch.lightness) > SAME.lightness) continue;
      if (hypot(a[i] - patch.a, b[i] - patch.b) < SAME.color) same++;
    }
  });
  return all > 0 ? same / all : 0;
}
