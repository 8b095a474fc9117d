import { simplifyPath } from '../geometry/simplify-path';
import type { PlatePoint } from '../geometry/camera';
import { horizonAt } from '../geometry/ground';

/** What a small copy of the plate says about the lie of the land: coverages by ground and sky, 0 to 1. */
export interface LandCover {
  width: number;
  height: number;
  ground: Float32Array;
  sky: Float32Array;
}

/** Corners nearer to the straight line than this are none; shorter pieces are no wall, fractions of the width. */
const STRAIGHT = 0.008;
const SHORTEST = 0.09;

/** A wall's foot lies this far under the horizon at least, and what stands on it rises this far over it. */
const UNDER = 0.012;
const OVER = 0.03;

/** Columns over which the foot is the middle one: posts and people before a wall are no part of it. */
const MEDIAN = 0.02;

/**
 * Feet of walls: straight pieces of the line along which what rises over the horizon meets the ground. From the left to the
 * right, each two places of the plate.
 */
export function guessWalls(
  { width, height, ground, sky }: LandCover,
  horizon: { left: number; right: number },
): [PlatePoint, PlatePoint][] {
  const feet = Float32Array.from({ length: width }, (_, x) => {
    const level = horizonAt(horizon, (x + 0.5) / width);
    const over = Math.round((level - OVER) * height);
    if (over < 0 || sky[over * width + x] > 0.5) return NaN;
    for (let y = Math.ceil(level * height); y < height; y++) {
      if (ground[y * width + x] > 0.5) return y / height;
    }
    return NaN;
  });
  const half = Math.max(1, Math.round((MEDIAN * width) / 2));
  const smooth = feet.map((_, x) => {
    const near = [...feet.subarray(Math.max(0, x - half), x + half + 1)].filter((v) => !Number.isNaN(v));
    return near.length > half ? near.sort((p, q) => p - q)[near.length >> 1] : NaN;
  });
  const pieces: [PlatePoint, PlatePoint][] = [];
  let run: PlatePoint[] = [];
  const close = () => {
    const corners = simplifyPath(run, STRAIGHT);
    for (let i = 1; i < corners.length; i++) {
      const [a, b] = [corners[i - 1], corners[i]];
      const under = (at: PlatePoint) => at.v > horizonAt(horizon, at.u) + UNDER;
      if (b.u - a.u >= SHORTEST && under(a) && under(b)) pieces.push([a, b]);
    }
    run = [];
  };
  smooth.forEach((v, x) => {
    if (Number.isNaN(v)) close();
    else run.push({ u: (x + 0.5) / width, v });
  });
  close();
  return pieces;
}
