import type { PlatePoint } from '../geometry/camera';
import { median } from '../plane/median';
import { isBeside, ONE_FOOT, placesApart, slopeOf, type Side } from './wall-side';

/** An upright edge under the horizon. `counts`: how much it tells, widths of the plate. */
export interface LowUpright {
  top: PlatePoint;
  foot: PlatePoint;
  counts: number;
}

/** A foot under a band lies so many times as deep at least; so many uprights end on it, so far apart, fractions of the width. */
const DEEPER = 1.5;
const ENDS = { least: 4, apart: 0.012 } as const;

/** Share of what lies between band and foot that uprights fill, by the logarithm of its slope. */
const FILLED = 0.7;

/**
 * The slope of a foot under one that is only a band of the wall: a sill, a sign, the ledge over a shop. Seen from above, the
 * wall goes on below it with uprights of its own from there down, which end together. Things in a row before the wall leave
 * ground between them and it; undefined for such, and where nothing ends.
 *
 * @param slope of the foot that was found, seen from where the wall runs to
 */
export function lowerFoot(own: Side, lows: readonly LowUpright[], slope: number): number | undefined {
  const under = lows
    .filter(({ foot }) => isBeside(own, foot.u))
    .map(({ top, foot, counts }) => ({ u: foot.u, from: slopeOf(own, top), to: slopeOf(own, foot), counts }))
    .filter(({ from }) => from > slope * (1 - ONE_FOOT));
  let best: { slope: number; trust: number } | undefined;
  for (const { to } of under) {
    if (to < DEEPER * slope) continue;
    const ends = under.filter((one) => Math.abs(Math.log(one.to / to)) < ONE_FOOT);
    const trust = ends.reduce((sum, { counts }) => sum + counts, 0);
    const places = placesApart(
      ends.map(({ u }) => u),
      ENDS.apart,
    );
    if (trust <= (best?.trust ?? 0) || places < ENDS.least) continue;
    if (filled(under, slope, to) > FILLED) best = { slope: median(ends.map((one) => one.to)), trust };
  }
  return best?.slope;
}

/** Share of the way between two slopes, by their logarithm, on which there is an upright. */
function filled(under: readonly { from: number; to: number }[], from: number, to: number): number {
  const ways = [...under].sort((a, b) => a.from - b.from);
  let [reached, sum] = [from, 0];
  for (const way of ways) {
    const [start, end] = [Math.max(reached, way.from), Math.min(to, way.to)];
    if (end <= start) continue;
    sum += Math.log(end / start);
    reached = end;
  }
  return sum / Math.log(to / from);
}
