import type { PlatePoint } from './camera';
import type { PlateLine } from './vanishing-point';

/** Height on the plate at which a line, from the left to the right, passes a column; fractions of the plate. */
export const lineAt = ([a, b]: PlateLine, u: number): number =>
  a.v + ((u - a.u) / Math.max(1e-9, b.u - a.u)) * (b.v - a.v);

/** A line from the left to the right, whichever way it was drawn. */
export const fromLeft = (from: PlatePoint, to: PlatePoint): PlateLine =>
  from.u <= to.u ? [from, to] : [to, from];
