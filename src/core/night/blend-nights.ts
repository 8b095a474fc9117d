import type { Rgb } from '../color/rgb';
import { colorByTone } from '../grade/color-by-tone';
import { monotoneCurve } from '../grade/monotone-curve';
import type { Night } from './night-schema';
import { MOST_POINTS, POINT_GAP } from '../grade/grade-schema';

const lerp = (a: number, b: number, t: number) => a + t * (b - a);

/** Places of either list, far enough from each other, at most as many as a list may hold. */
function places(a: readonly number[], b: readonly number[]): number[] {
  const sorted = [...a, ...b].sort((p, q) => p - q);
  const apart = sorted.filter((x, i) => i === 0 || x - sorted[i - 1] >= 2 * POINT_GAP);
  return apart.length <= MOST_POINTS ? apart : apart.filter((_, i) => i % 2 === 0 || i === apart.length - 1);
}

/**
 * A night between two: 0 is `from`, 1 is `to`. Numbers go straight, kelvin in mireds, curves and strips of colour point by
 * point; of two look-up tables the one that comes in fades in.
 */
export function blendNights(from: Night, to: Night, strength: number): Night {
  if (strength <= 0) return from;
  if (strength >= 1) return to;
  const mired = (a: number, b: number) => 1 / lerp(1 / a, 1 / b, strength);
  const numbers = <T extends object>(a: T, b: T): T => {
    const mixed = { ...b };
    for (const key of Object.keys(b) as (keyof T)[]) {
      const [p, q] = [a[key], b[key]];
      if (typeof p === 'number' && typeof q === 'number') mixed[key] = lerp(p, q, strength) as T[keyof T];
    }
    return mixed;
  };
  const [before, after] = [monotoneCurve(from.shape.points), monotoneCurve(to.shape.points)];
  const [colorBefore, colorAfter] = [colorByTone(from.byTone.stops), colorByTone(to.byTone.stops)];
  const mixed = ([r, g, b]: Rgb, [r2, g2, b2]: Rgb): [number, number, number] => [
    lerp(r, r2, strength),
    lerp(g, g2, strength),
    lerp(b, b2, strength),
  ];
  const lut = to.lut
    ? { ...to.lut, strength: strength * to.lut.strength }
    : from.lut && { ...from.lut, strength: (1 - strength) * from.lut.strength };
  return {
    ...numbers(from, to),
    kelvin: mired(from.kelvin, to.kelvin),
    hazeKelvin: mired(from.hazeKelvin, to.hazeKelvin),
    shape: {
      ...numbers(from.shape, to.shape),
      points: places(
        from.shape.points.map(({ x }) => x),
        to.shape.points.map(({ x }) => x),
      ).map((x) => ({ x, y: lerp(before(x), after(x), strength) })),
    },
    byTone: {
      ...numbers(from.byTone, to.byTone),
      stops: places(
        from.byTone.stops.map(({ at }) => at),
        to.byTone.stops.map(({ at }) => at),
      ).map((at) => ({ at, color: mixed(colorBefore(at), colorAfter(at)) })),
    },
    refit: numbers(from.refit, to.refit),
    surround: {
      ...numbers(from.surround, to.surround),
      at: numbers(from.surround.at, to.surround.at),
    },
    lut,
  };
}
