import { hypot } from '../plane/hypot';

/** A place with fractions of a picture's width and height. */
interface Place {
  u: number;
  v: number;
}

/**
 * A path with as few of its points as keep it within a tolerance (Ramer 1972, Douglas and Peucker 1973). Its ends stay.
 *
 * @param tolerance in the units of the points
 */
export function simplifyPath<P extends Place>(points: readonly P[], tolerance: number): P[] {
  if (points.length < 3) return [...points];
  const keep = new Uint8Array(points.length);
  keep[0] = keep[points.length - 1] = 1;
  const open: [number, number][] = [[0, points.length - 1]];
  for (let range = open.pop(); range; range = open.pop()) {
    const [first, last] = range;
    const [a, b] = [points[first], points[last]];
    const [eu, ev] = [b.u - a.u, b.v - a.v];
    const square = eu * eu + ev * ev;
    let [most, at] = [tolerance, -1];
    for (let i = first + 1; i < last; i++) {
      const [wu, wv] = [points[i].u - a.u, points[i].v - a.v];
      const t = square > 0 ? Math.min(1, Math.max(0, (wu * eu + wv * ev) / square)) : 0;
      const away = hypot(wu - t * eu, wv - t * ev);
      if (away > most) [most, at] = [away, i];
    }
    if (at < 0) continue;
    keep[at] = 1;
    open.push([first, at], [at, last]);
  }
  return points.filter((_, i) => keep[i] === 1);
}
