import type { PlatePoint } from './camera';
import { hypot } from '../plane/hypot';

/** A point of an outline. Offsets to the handles of its Bezier curves make it round; without them it is a corner. */
export interface OutlinePoint extends PlatePoint {
  in?: PlatePoint;
  out?: PlatePoint;
}

/** How far a line may leave its curve, fraction of the plate's width: under a tenth of a pixel of most plates. */
const TOLERANCE = 1 / 60000;
const MOST_LINES = 96;

const moved = (point: PlatePoint, by: PlatePoint | undefined): PlatePoint =>
  by ? { u: point.u + by.u, v: point.v + by.v } : point;

/**
 * A closed outline with its Bezier curves as straight lines, the same for a plate of any size. The number of lines follows
 * from the second differences of a cubic's control points (Wang 1984).
 */
export function flattenOutline(points: readonly OutlinePoint[]): PlatePoint[] {
  const out: PlatePoint[] = [];
  points.forEach((start, i) => {
    const end = points[(i + 1) % points.length];
    out.push(start);
    if (!start.out && !end.in) return;
    const [a, b, c, d] = [start, moved(start, start.out), moved(end, end.in), end];
    const bend = Math.max(
      hypot(a.u - 2 * b.u + c.u, a.v - 2 * b.v + c.v),
      hypot(b.u - 2 * c.u + d.u, b.v - 2 * c.v + d.v),
    );
    const lines = Math.min(MOST_LINES, Math.max(1, Math.ceil(Math.sqrt((0.75 * bend) / TOLERANCE))));
    for (let k = 1; k < lines; k++) {
      const t = k / lines;
      const s = 1 - t;
      const [p, q, r, w] = [s * s * s, 3 * s * s * t, 3 * s * t * t, t * t * t];
      out.push({
        u: p * a.u + q * b.u + r * c.u + w * d.u,
        v: p * a.v + q * b.v + r * c.v + w * d.v,
      });
    }
  });
  return out;
}

/**
 * A point of an outline made round: its handles lie along the line between its neighbours, a third of the way to each
 * times `roundness` (a cardinal spline, Catmull and Rom 1974). At 0 it is a corner.
 */
export function roundPoint(points: readonly OutlinePoint[], index: number, roundness: number): OutlinePoint {
  const { u, v } = points[index];
  if (roundness <= 0 || points.length < 3) return { u, v };
  const before = points[(index + points.length - 1) % points.length];
  const after = points[(index + 1) % points.length];
  const chord = { u: after.u - before.u, v: after.v - before.v };
  const length = hypot(chord.u, chord.v);
  if (length === 0) return { u, v };
  const reach = (other: PlatePoint) => (roundness * hypot(other.u - u, other.v - v)) / 3 / length;
  const [back, on] = [reach(before), reach(after)];
  return {
    u,
    v,
    in: { u: -back * chord.u, v: -back * chord.v },
    out: { u: on * chord.u, v: on * chord.v },
  };
}
