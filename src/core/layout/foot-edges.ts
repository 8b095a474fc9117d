import type { PlatePoint } from '../geometry/camera';
import { horizonAt } from '../geometry/ground';
import type { PlateLine } from '../geometry/vanishing-point';
import type { Perspective } from './guess-horizon';
import { plateEdges, sineToward } from './plate-edges';
import { hypot } from '../plane/hypot';

/** Edges that a wall's foot may follow: how long at least, widths of the plate, how far under the horizon, and how exactly they run to a place. */
const EDGES = { longest: 400, length: 0.03, under: 0.01, toward: 0.02 } as const;

/** How near to an edge a foot snaps to it, widths of the plate; the far end of a wall from farther off to the edge of its near one. */
const REACH = { near: 0.008, along: 0.016 } as const;

/** How far beyond its ends an edge still counts, shares of its length: it may be hidden there. */
const BEYOND = 0.6;

/** The level edges of a plate under its horizon: those that run to one of the places where such edges meet. */
export function footEdges(
  lines: readonly PlateLine[],
  { horizon, level }: Pick<Perspective, 'horizon' | 'level'>,
  aspect: number,
): PlateLine[] {
  const places = level.map(({ u }) => ({ x: u - 0.5, y: (horizonAt(horizon, u) - 0.5) / aspect }));
  return lines
    .filter((line) => {
      const [edge] = plateEdges([line], aspect);
      if (!edge || edge.length < EDGES.length) return false;
      const isUnder = line.every(({ u, v }) => v > horizonAt(horizon, u) + EDGES.under);
      return isUnder && places.some(({ x, y }) => sineToward(edge, x, y, 1) < EDGES.toward);
    })
    .slice(0, EDGES.longest);
}

/** The place of an edge that is nearest to a place, and how far off it is, widths of the plate; undefined beyond its ends. */
function onEdge([a, b]: PlateLine, { u, v }: PlatePoint, aspect: number) {
  const [dx, dy] = [b.u - a.u, (b.v - a.v) / aspect];
  const share = ((u - a.u) * dx + ((v - a.v) / aspect) * dy) / (dx * dx + dy * dy);
  if (share < -BEYOND || share > 1 + BEYOND) return undefined;
  const at = { u: a.u + share * dx, v: a.v + share * (b.v - a.v) };
  return { at, off: hypot(u - at.u, (v - at.v) / aspect) };
}

/**
 * A foot that is dragged to a place: on the nearest edge there, if one is near; where the wall's other end lies on an edge, along that one.
 *
 * @param other where the wall's other end is, if it has one yet
 * @param aspect width of the plate over its height
 */
export function snapFoot(
  edges: readonly PlateLine[],
  to: PlatePoint,
  other: PlatePoint | undefined,
  aspect: number,
): PlatePoint {
  let [nearest, place]: [number, PlatePoint] = [1, to];
  for (const edge of edges) {
    const found = onEdge(edge, to, aspect);
    if (!found) continue;
    const runsOn = other && (onEdge(edge, other, aspect)?.off ?? Infinity) < REACH.near / 2;
    const share = found.off / (runsOn ? REACH.along : REACH.near);
    // An edge on which both ends lie goes before others.
    const rank = runsOn ? share / 4 : share;
    if (share < 1 && rank < nearest) [nearest, place] = [rank, found.at];
  }
  return place;
}
