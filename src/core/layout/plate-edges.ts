import type { PlateLine } from '../geometry/vanishing-point';
import { hypot } from '../plane/hypot';

/** A straight edge of a plate: its middle and direction, in widths of the plate from its middle, y down; how long it is. */
export interface PlateEdge {
  x: number;
  y: number;
  dx: number;
  dy: number;
  length: number;
}

/** Edges of lines. `aspect` is the plate's width over its height. */
export function plateEdges(lines: readonly PlateLine[], aspect: number): PlateEdge[] {
  return lines.flatMap(([a, b]) => {
    const [dx, dy] = [b.u - a.u, (b.v - a.v) / aspect];
    const length = hypot(dx, dy);
    if (length === 0) return [];
    const [x, y] = [(a.u + b.u) / 2 - 0.5, ((a.v + b.v) / 2 - 0.5) / aspect];
    return [{ x, y, dx: dx / length, dy: dy / length, length }];
  });
}

/**
 * Sine of the angle between an edge and the way from its middle to a place.
 *
 * @param px @param py @param w the place, homogeneous: at infinity where w is 0
 */
export function sineToward({ x, y, dx, dy }: PlateEdge, px: number, py: number, w: number): number {
  const [toX, toY] = [px - w * x, py - w * y];
  return Math.abs(toX * dy - toY * dx) / Math.max(1e-9, hypot(toX, toY));
}
