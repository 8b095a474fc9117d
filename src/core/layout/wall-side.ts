import type { PlatePoint } from '../geometry/camera';
import { horizonAt } from '../geometry/ground';
import type { Perspective, VanishingPlace } from './guess-horizon';

/** How far from where it runs to a wall ends, fraction of the width. */
export const AWAY = 0.015;

/** The half of the plate on one side of a place on the horizon: a wall that runs there lies on one of them. */
export interface Side {
  place: VanishingPlace;
  side: -1 | 1;
  horizon: Perspective['horizon'];
  aspect: number;
}

export const isBeside = ({ place, side }: Side, u: number) => (u - place.u) * side > AWAY;

/** Slope under the horizon of the line from a side's place through a point. */
export const slopeOf = ({ place, horizon }: Side, { u, v }: PlatePoint) =>
  (v - horizonAt(horizon, u)) / Math.abs(u - place.u);

export const onSlope = ({ place, horizon }: Side, u: number, slope: number): PlatePoint => ({
  u,
  v: horizonAt(horizon, u) + slope * Math.abs(u - place.u),
});

/** Feet whose slopes differ by no more than this, as a share, are one. */
export const ONE_FOOT = 0.08;

/** At how many places, so far apart, some edges end. */
export function placesApart(us: readonly number[], apart: number): number {
  let [count, last] = [0, -Infinity];
  for (const u of [...us].sort((a, b) => a - b)) {
    if (u - last < apart) continue;
    count++;
    last = u;
  }
  return count;
}
