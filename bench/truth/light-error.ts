import { luminance } from '@/core/color/luminance';

/** Classes of the truth's ids; glass of lamps and the sky do not count. */
const CLASSES: Record<number, string> = {
  1: 'ground',
  2: 'thing',
  3: 'pane',
  4: 'building',
  5: 'plant',
  6: 'hardware',
};

export const classOf = (id: number): string | undefined => (id >= 100 ? 'pane' : CLASSES[id]);

/** CIE lightness of a luminance whose white is 1, clipped as a picture is. */
function lightness(y: number): number {
  const t = Math.min(1, Math.max(0, y));
  return t > 216 / 24389 ? 116 * Math.cbrt(t) - 16 : (24389 / 27) * t;
}

export const luminances = ({
  r,
  g,
  b,
}: {
  r: Float32Array;
  g: Float32Array;
  b: Float32Array;
}): Float32Array => Float32Array.from(r, (red, i) => luminance([red, g[i], b[i]]));

/**
 * How far a light is from the true one: mean |dL*| over what counts, both shown with the truth's 99th percentile as white,
 * the light's overall strength fitted.
 */
export function createLightError(truth: Float32Array, ids: Uint8Array, step = 1) {
  const counted: number[] = [];
  for (let i = 0; i < ids.length; i += step) if (classOf(ids[i])) counted.push(i);
  const sorted = Float32Array.from(counted, (i) => truth[i]).sort();
  const white = sorted[Math.floor(0.99 * sorted.length)];
  const wanted = Float32Array.from(counted, (i) => lightness(truth[i] / white));
  const error = (light: Float32Array, strength: number) =>
    counted.reduce((sum, i, k) => sum + Math.abs(lightness((light[i] * strength) / white) - wanted[k]), 0) /
    counted.length;

  function fitted(light: Float32Array): { error: number; strength: number } {
    const mine = Float32Array.from(counted, (i) => light[i]).sort();
    const middle = (values: Float32Array) => Math.max(1e-12, values[Math.floor(0.7 * values.length)]);
    let best = { error: Infinity, strength: 1 };
    let from = middle(sorted) / middle(mine);
    for (const factor of [2, 1.19, 1.045]) {
      const tried = [-4, -3, -2, -1, 0, 1, 2, 3, 4].map((k) => from * factor ** k);
      for (const strength of tried) {
        const now = error(light, strength);
        if (now < best.error) best = { error: now, strength };
      }
      from = best.strength;
    }
    return best;
  }

  return {
    fitted,
    byClass(light: Float32Array, strength: number): Record<string, number> {
      const sums: Record<string, [sum: number, count: number]> = {};
      counted.forEach((i, k) => {
        const entry = (sums[classOf(ids[i])!] ??= [0, 0]);
        entry[0] += Math.abs(lightness((light[i] * strength) / white) - wanted[k]);
        entry[1]++;
      });
      return Object.fromEntries(Object.entries(sums).map(([name, [sum, count]]) => [name, sum / count]));
    },
  };
}
