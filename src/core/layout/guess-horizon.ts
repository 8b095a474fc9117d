import type { PlateLine } from '../geometry/vanishing-point';

/** Lines steeper than this against the level are upright things, and say nothing of the horizon; flatter ones little. */
const SLANT = { least: 0.03, most: 1.2 } as const;

/** Distances of a line's direction from a vanishing point, radians, up to which it runs toward it: at first, then finer. */
const TOWARD = [0.02, 0.015, 0.01, 0.01] as const;

/** Where a horizon may lie, fractions of the height. */
const WITHIN = { least: 0.15, most: 0.85 } as const;

/** Longest lines that are tried in pairs. */
const TRIED = 60;

/** A straight edge: its middle and its way, in widths of the plate from the top left, and how long it is. */
interface Edge {
  x: number;
  y: number;
  dx: number;
  dy: number;
  length: number;
}

/** How much of the edges' length runs toward a place, and the place that fits those edges best (least squares). */
function fitPoint(edges: readonly Edge[], x: number, y: number, toward: number) {
  let support = 0;
  let [xx, xy, yy, bx, by] = [0, 0, 0, 0, 0];
  for (const edge of edges) {
    const [px, py] = [x - edge.x, y - edge.y];
    const away = Math.hypot(px, py);
    if (away < 1e-6 || Math.abs(px * edge.dy - py * edge.dx) > toward * away * edge.length) continue;
    support += edge.length;
    // Near edges say more of the place than far ones: an error is an angle.
    const [nx, ny] = [-edge.dy / (edge.length * away), edge.dx / (edge.length * away)];
    const along = nx * edge.x + ny * edge.y;
    xx += edge.length * nx * nx;
    xy += edge.length * nx * ny;
    yy += edge.length * ny * ny;
    bx += edge.length * nx * along;
    by += edge.length * ny * along;
  }
  const determinant = xx * yy - xy * xy;
  const isTold = determinant > 1e-9 * Math.max(1e-12, xx * yy);
  return {
    support,
    x: isTold ? (bx * yy - by * xy) / determinant : x,
    y: isTold ? (by * xx - bx * xy) / determinant : y,
  };
}

/**
 * A level horizon by the vanishing point toward which most length of the plate's lines runs. Undefined where less than a
 * share `trust` of it does.
 *
 * @param lines straight edges of the plate
 * @param aspect width of the plate over its height
 */
export function guessHorizon(
  lines: readonly PlateLine[],
  aspect: number,
  trust = 0.2,
): { left: number; right: number } | undefined {
  const edges = lines
    .map(([a, b]): Edge => {
      const [dx, dy] = [b.u - a.u, (b.v - a.v) / aspect];
      return { x: (a.u + b.u) / 2, y: (a.v + b.v) / 2 / aspect, dx, dy, length: Math.hypot(dx, dy) };
    })
    .filter(({ dx, dy }) => {
      const slope = Math.abs(dy) / Math.max(1e-9, Math.abs(dx));
      return slope > SLANT.least && slope < SLANT.most;
    })
    .sort((p, q) => q.length - p.length);
  const isWithin = (x: number, y: number) =>
    y * aspect > WITHIN.least && y * aspect < WITHIN.most && Math.abs(x - 0.5) < 3;
  let best = { support: trust * edges.reduce((sum, { length }) => sum + length, 0), x: NaN, y: NaN };
  const tried = edges.slice(0, TRIED);
  tried.forEach((one, i) => {
    for (const other of tried.slice(i + 1)) {
      const turn = one.dx * other.dy - one.dy * other.dx;
      if (Math.abs(turn) < 0.01 * one.length * other.length) continue;
      const share = ((other.x - one.x) * other.dy - (other.y - one.y) * other.dx) / turn;
      const [x, y] = [one.x + share * one.dx, one.y + share * one.dy];
      if (!isWithin(x, y)) continue;
      const { support } = fitPoint(edges, x, y, TOWARD[0]);
      if (support > best.support) best = { support, x, y };
    }
  });
  if (Number.isNaN(best.x)) return undefined;
  let [x, y] = [best.x, best.y];
  for (const toward of TOWARD) ({ x, y } = fitPoint(edges, x, y, toward));
  return isWithin(x, y) ? { left: y * aspect, right: y * aspect } : undefined;
}
