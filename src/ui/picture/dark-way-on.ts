import { MOST_POINTS } from '@/core/fixture/fixture-base';
import type { PlatePoint } from '@/core/geometry/camera';
import { simplifyPath } from '@/core/geometry/simplify-path';
import { darkWay } from '@/core/layout/dark-way';
import { canvasPart } from './canvas-part';

/** How much of the picture around a way is looked at, fraction of its sides. */
const MARGIN = 0.02;

/** Corners of a way nearer to the straight line than this are none, fraction of the width. */
const STRAIGHT = 0.0004;

/** A way that was drawn over the day, on the thin dark line beside it. */
export function darkWayOn(day: HTMLCanvasElement | null, path: readonly PlatePoint[]): PlatePoint[] {
  if (!day || day.width === 0) return [...path];
  const { left, top, width, height, codes } = canvasPart(day, path, MARGIN);
  const data = Float32Array.from(
    { length: width * height },
    (_, i) => 0.21 * codes[4 * i] + 0.72 * codes[4 * i + 1] + 0.07 * codes[4 * i + 2],
  );
  const own = path.map(({ u, v }) => ({
    u: (u * day.width - left) / width,
    v: (v * day.height - top) / height,
  }));
  const found = darkWay({ width, height, data }, own).map(({ u, v }) => ({
    u: (u * width + left) / day.width,
    v: (v * height + top) / day.height,
  }));
  return simplifyPath(found, STRAIGHT).slice(0, MOST_POINTS);
}
