import { smoothStep } from '../plane/smooth-step';
import type { RampPass } from './pass';
import { hypot } from '../plane/hypot';

/** Coverage of a ramp at a place of the plate. `aspect`: the plate's width over its height. */
export function rampCoverage(
  { shape, from, to, breadth, soft }: RampPass,
  u: number,
  v: number,
  aspect: number,
): number {
  const [ax, ay] = [to.u - from.u, (to.v - from.v) / aspect];
  const [x, y] = [u - from.u, (v - from.v) / aspect];
  const length = Math.max(1e-9, ax * ax + ay * ay);
  const along = (x * ax + y * ay) / length;
  const across = (y * ax - x * ay) / length / Math.max(1e-3, breadth);
  const way = shape === 'straight' ? along : hypot(along, across);
  return 1 - smoothStep(1 - Math.max(soft, 1e-3), 1, way);
}
