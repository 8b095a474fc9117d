import { boundPlace } from './bound-place';
import type { PlatePoint } from './camera';

/** A plane projective map between two plates, row by row; places are fractions of each plate's sides. */
export type Homography = readonly [number, number, number, number, number, number, number, number, number];

/** A place of one plate, and where the same is seen on another. */
export interface SamePlace {
  from: PlatePoint;
  to: PlatePoint;
}

/** Where places of one plate are seen on another. */
export interface PlaceMap {
  place: (at: PlatePoint) => PlatePoint;
  /** How many times as large things around a place are seen, in widths of the plates. */
  times: (at: PlatePoint) => number;
}

/** Reach of a known place, and how much stands against all of them: far from any the plane map alone counts. */
const NEAR = { reach: 0.035, against: 0.3 } as const;

/** Step over which a map's scale is told, widths. */
const STEP = 0.02;

/**
 * The map of a homography, bent near places that are known to lie elsewhere: what is near or far moves differently when the eye has
 * moved between two photos (inverse-distance weighting with a Gaussian reach, Shepard 1968).
 *
 * @param known places that were found on both plates
 */
export function createPlaceMap(flat: Homography, known: readonly SamePlace[]): PlaceMap {
  const off = known.map(({ from, to }) => {
    const { u, v } = onPlane(flat, from);
    return { from, du: to.u - u, dv: to.v - v };
  });
  const place = (at: PlatePoint): PlatePoint => {
    const { u, v } = onPlane(flat, at);
    let [sum, du, dv] = [NEAR.against, 0, 0];
    for (const one of off) {
      const square = (one.from.u - at.u) ** 2 + (one.from.v - at.v) ** 2;
      const weight = Math.exp(-square / (2 * NEAR.reach ** 2));
      sum += weight;
      du += weight * one.du;
      dv += weight * one.dv;
    }
    return boundPlace({ u: u + du / sum, v: v + dv / sum });
  };
  const times = ({ u, v }: PlatePoint) => {
    const [left, right] = [place({ u: u - STEP, v }), place({ u: u + STEP, v })];
    return Math.max(0.05, Math.abs(right.u - left.u) / (2 * STEP));
  };
  return { place, times };
}

/** Where a homography shows a place. What lies behind the eye is seen nowhere: it stays on this side. */
export function onPlane(flat: Homography, { u, v }: PlatePoint): PlatePoint {
  const [a, b, c, d, e, f] = flat;
  const w = Math.max(1e-3, depthOn(flat, { u, v }));
  return { u: (a * u + b * v + c) / w, v: (d * u + e * v + f) / w };
}

/** How far ahead of the eye a homography has a place, in parts of its own. */
export const depthOn = ([, , , , , , g, h, i]: Homography, { u, v }: PlatePoint): number => g * u + h * v + i;
