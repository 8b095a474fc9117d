import { horizonAt } from '../geometry/ground';
import type { PlateLine } from '../geometry/vanishing-point';
import { plateEdges, sineToward } from './plate-edges';
import { isBeside, type Side } from './wall-side';

/** Sine up to which an edge runs toward a place. */
const TOWARD = 0.016;

/** Columns in which a wall's own edges are counted, and how many may lack them in a row. */
const COLUMNS = { count: 64, gap: 5 } as const;

/** Part of the plate's width, from the left to the right. */
export interface Span {
  from: number;
  to: number;
}

/** Where along a side level edges run toward its place, over the horizon: the longest first. */
export function spansOf(own: Side, levels: readonly PlateLine[]): Span[] {
  const { place, horizon, aspect } = own;
  const { count, gap } = COLUMNS;
  const bins = new Float64Array(count);
  const [x, y] = [place.u - 0.5, (horizonAt(horizon, place.u) - 0.5) / aspect];
  const edges = plateEdges(levels, aspect);
  levels.forEach(([a, b], i) => {
    const u = (a.u + b.u) / 2;
    if (!isBeside(own, u) || sineToward(edges[i], x, y, 1) > TOWARD) return;
    const [from, to] = [Math.min(a.u, b.u), Math.max(a.u, b.u)].map((at) => Math.floor(at * count));
    for (let k = Math.max(0, from); k <= Math.min(count - 1, to); k++) bins[k]++;
  });
  const spans: Span[] = [];
  let [start, last] = [-1, -1];
  const close = () => {
    if (start >= 0) spans.push({ from: start / count, to: (last + 1) / count });
    start = -1;
  };
  for (let k = 0; k < count; k++) {
    if (bins[k] > 0) {
      if (start < 0) start = k;
      last = k;
    } else if (start >= 0 && k - last > gap) close();
  }
  close();
  return spans.sort((a, b) => b.to - b.from - (a.to - a.from));
}
