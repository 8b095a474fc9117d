import { contours } from 'd3-contour';
import { seeded } from '@/core/fixture/seeded';
import type { PlatePoint } from '@/core/geometry/camera';
import { outlineArea } from '@/core/geometry/outline-area';
import { simplifyPath } from '@/core/geometry/simplify-path';
import { MOST_POINTS } from '@/core/fixture/fixture-base';
import type { CoveragePicture } from '@/core/matte/coverage-picture';

/** Corners of an outline nearer to the straight line than this are none, fraction of the width. */
const STRAIGHT = 0.0015;

/** Bulbs that are scattered keep apart by this share of what evenly spread ones would. */
const APART = 0.6;

/** Places that are tried for each bulb. */
const TRIES = 30;

/** The largest outline of what a matte covers, closed; undefined where it covers nothing. */
export function outlineOf({ width, height, data }: CoveragePicture): PlatePoint[] | undefined {
  const [found] = contours().size([width, height]).thresholds([127.5])(Array.from(data));
  const rings = found.coordinates.map(([outer]) => outer.map(([x, y]) => ({ u: x / width, v: y / height })));
  if (rings.length === 0) return undefined;
  const points = rings.reduce((best, ring) => (outlineArea(ring) > outlineArea(best) ? ring : best));
  // A closed way has the same ends: its halves are made simple, each by itself.
  const half = points.length >> 1;
  for (let tolerance = STRAIGHT; ; tolerance *= 1.5) {
    const path = [
      ...simplifyPath(points.slice(0, half + 1), tolerance),
      ...simplifyPath(points.slice(half), tolerance).slice(1),
    ];
    if (path.length <= MOST_POINTS) return path;
  }
}

/** So many places inside of what a matte covers, apart from one another, the same for a seed. */
export function scatterIn(
  { width, height, data }: CoveragePicture,
  count: number,
  seed: number,
): PlatePoint[] {
  const inside = Array.from(data.keys()).filter((i) => data[i] > 127);
  if (inside.length === 0) return [];
  const random = seeded(seed);
  const apart = APART * Math.sqrt(inside.length / count);
  const found: [x: number, y: number][] = [];
  for (let tries = 0; tries < TRIES * count && found.length < count; tries++) {
    const i = inside[Math.floor(random() * inside.length)];
    const [x, y] = [(i % width) + random(), Math.floor(i / width) + random()];
    if (found.every(([a, b]) => Math.hypot(a - x, b - y) >= apart)) found.push([x, y]);
  }
  return found.map(([x, y]) => ({ u: x / width, v: y / height }));
}
