import type { PlatePoint } from './camera';
import { hypot } from '../plane/hypot';

/** A straight line by two places of the plate. */
export type PlateLine = readonly [PlatePoint, PlatePoint];

/** Least angle, radians, under which two lines meet in a place that can be told. */
const LEAST_ANGLE = 0.01;

/**
 * Where two lines of the plate meet: the vanishing point of lines that are parallel in the world. Undefined where they are as
 * good as parallel in the picture.
 *
 * @param aspect width of the plate over its height
 */
export function vanishingPoint([a, b]: PlateLine, [c, d]: PlateLine, aspect: number): PlatePoint | undefined {
  const [abX, abY] = [b.u - a.u, (b.v - a.v) / aspect];
  const [cdX, cdY] = [d.u - c.u, (d.v - c.v) / aspect];
  const turn = abX * cdY - abY * cdX;
  const sine = Math.abs(turn) / Math.max(1e-12, hypot(abX, abY) * hypot(cdX, cdY));
  if (sine < LEAST_ANGLE) return undefined;
  const share = ((c.u - a.u) * cdY - ((c.v - a.v) / aspect) * cdX) / turn;
  return { u: a.u + share * abX, v: a.v + share * (b.v - a.v) };
}

/** A horizon moved, but not turned, so that it goes through a place. */
export function horizonThrough(
  { left, right }: { left: number; right: number },
  { u, v }: PlatePoint,
): { left: number; right: number } {
  const by = v - left - u * (right - left);
  return { left: left + by, right: right + by };
}
