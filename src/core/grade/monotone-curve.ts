/** A place that a curve goes through; both coordinates 0 to 1. */
export interface CurvePoint {
  x: number;
  y: number;
}

/**
 * A smooth curve through points with rising x that never overshoots them: monotone cubic Hermite pieces (Fritsch and
 * Carlson 1980). Level before the first point and after the last one.
 */
export function monotoneCurve(points: readonly CurvePoint[]): (x: number) => number {
  const last = points.length - 1;
  if (last < 0) return (x) => x;
  const width = (k: number) => points[k + 1].x - points[k].x;
  const secants = Array.from({ length: last }, (_, k) => (points[k + 1].y - points[k].y) / width(k));
  const slopes = points.map((_, k) => {
    if (k === 0) return secants[0] ?? 0;
    if (k === last) return secants[last - 1];
    return secants[k - 1] * secants[k] <= 0 ? 0 : (secants[k - 1] + secants[k]) / 2;
  });
  // Within three times its secant at both ends a piece is monotone.
  const limited = (slope: number, secant: number) =>
    secant < 0 ? Math.max(3 * secant, Math.min(0, slope)) : Math.min(3 * secant, Math.max(0, slope));
  secants.forEach((secant, k) => {
    slopes[k] = limited(slopes[k], secant);
    slopes[k + 1] = limited(slopes[k + 1], secant);
  });
  return (x) => {
    if (x <= points[0].x) return points[0].y;
    if (x >= points[last].x) return points[last].y;
    const k = points.findLastIndex((point) => point.x <= x);
    const h = width(k);
    const t = (x - points[k].x) / h;
    const [start, rise] = [points[k].y, points[k + 1].y - points[k].y];
    const bend = (1 - t) * (slopes[k] * h - rise) - t * (slopes[k + 1] * h - rise);
    return start + t * rise + t * (1 - t) * bend;
  };
}
