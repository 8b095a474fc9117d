import { betweenPixels } from '../plane/between-pixels';
import { median } from '../plane/median';
import type { Plane } from '../plane/plane';

/**
 * What a step inward of a frame's edge must be for glass to begin there: codes at least, share of the strongest step, and
 * along how much of the side it is seen. Bars across the glass hide it here and there.
 */
const STEP = { codes: 3, share: 0.15, seen: 0.6, half: 0.4 } as const;

/** How much further off the tone of the glass than the nearest step, codes, still comes to it. */
const NEAR = 14;

/** What tones beyond that of the glass count as being off. */
const SHADED = 0.5;

/** How far in the tone of the glass is looked for, beyond the reach, shares of it. */
const DEEP = 1;

/** Share of a side at each end that is left out: corners are in each other's way. */
const ENDS = 0.1;

/** A line across a view: where it is at the start and at the end of what it bounds, pixels. */
export type Side = readonly [start: number, end: number];

/** One side of a frame in a view. */
export interface FrameSide {
  /** Whether it is upright: its lines are columns then, rows else. */
  upright: boolean;
  /** Which way the glass lies. */
  inward: 1 | -1;
  /** Between which pixels along it it lies, and where it is at both. */
  from: number;
  to: number;
  ends: Side;
}

/** What lies along a side at depths from -1 on, pixel by pixel: tones[1 + depth][n], codes. */
function tonesInside(view: Plane, { upright, inward, from, to, ends }: FrameSide, depths: number) {
  const length = upright ? view.height : view.width;
  const cut = ENDS * (to - from);
  const places: number[] = [];
  for (let n = Math.max(0, Math.ceil(from + cut)); n <= Math.min(length - 1, to - cut); n++) places.push(n);
  const along = (depth: number) =>
    places.map((n) => {
      const x = ends[0] + ((ends[1] - ends[0]) * (n - from)) / (to - from) + inward * depth;
      return upright ? betweenPixels(view, x, n) : betweenPixels(view, n, x);
    });
  return Array.from({ length: depths + 1 }, (_, k) => along(k - 1));
}

/**
 * How far inside of a frame's edge its glass begins, pixels of the view: at the first step along the whole side that
 * comes to the tone of the glass, in the medians of lines beside it, which bars across the glass do not move. 0 where it
 * is the edge itself, or none is within reach.
 *
 * @param view one channel, codes
 * @param reach pixels
 */
export function glassDepth(view: Plane, side: FrameSide, reach: number): number {
  const tones = tonesInside(view, side, (1 + DEEP) * reach + 1);
  const medians = tones.map(median);
  const step = (k: number) => (medians[k + 1] - medians[k - 1]) / 2;
  const size = (k: number) => (k > 0 ? Math.abs(step(k)) : 0);
  const within = Array.from({ length: reach + 1 }, (_, k) => k + 1);
  const least = Math.max(STEP.codes, STEP.share * Math.max(...within.map(size)));
  const seen = (k: number) => {
    const own = tones[k].filter((_, n) => {
      const across = (tones[k + 1][n] - tones[k - 1][n]) / 2;
      return across * Math.sign(step(k)) > STEP.half * size(k);
    });
    return own.length / tones[k].length;
  };
  const isStep = (k: number) => size(k) >= Math.max(least, size(k - 1), size(k + 1)) && seen(k) >= STEP.seen;
  const steps = within.filter(isStep);
  const glass = median(medians.slice(reach + 2));
  // What lies beyond the tone of the glass, as seen from the frame, may be glass in its shade.
  const off = (k: number) => {
    const left = (medians[k + 1] - glass) * Math.sign(medians[k - 1] - glass);
    return left > 0 ? left : -SHADED * left;
  };
  const near = Math.min(...steps.map(off)) + NEAR;
  const k = steps.find((at) => off(at) <= near) ?? 1;
  if (k === 1) return 0;
  const bend = size(k - 1) - 2 * size(k) + size(k + 1);
  return k - 1 + (bend < 0 ? (size(k - 1) - size(k + 1)) / (2 * bend) : 0);
}
