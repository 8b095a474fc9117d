import type { EdgeLines } from './edge-lines';
import type { Plane } from '../plane/plane';
import type { SquareView } from './square-view';

/** A rectangle of a view, pixels. */
export interface Frame {
  left: number;
  top: number;
  right: number;
  bottom: number;
}

/** Least and most of a window's sides: pixels of the view, and metres where the plane's distance is known. */
const SIDE = { least: 9, metres: { least: 0.22, most: 4.2 } } as const;

/** Most edges that are tried on each side, and how much of one must be seen beside the middle. */
const TRIED = { most: 24, seen: 0.4 } as const;

/** Share of a side's length along which its edge must be seen, and by which power it counts. */
const SEEN = { least: 0.62, power: 6 } as const;

/**
 * How far beyond its corners the edges of a window are looked at, share of its sides; how much it counts against it when
 * both of two go on: then it is but one light between bars. Broad lights beside each other are windows of their own.
 */
const BEYOND = { share: 0.3, least: 8, up: 0.9, across: { narrow: 0.9, broad: 0.25 } } as const;

/** Lights up to this breadth are part of a window, from that on windows of their own, metres. */
const LIGHT = { narrow: 0.75, broad: 1.05 } as const;

/** What the area of a window counts. */
const AREA = 0.1;

/** Breadth of a window for its height, least and most. */
const ASPECT = { least: 0.2, most: 3.2 } as const;

/** How much a window differs in its mean from what lies beside it on two opposite sides, codes at least; how wide that is, share of it. */
const UNLIKE = { codes: 6, share: 0.25 } as const;

/** How many frames are told around one place, how much less sure than the first at most, and from which share of both on two are the same. */
const OTHERS = { most: 6, least: 0.02, same: 0.7 } as const;

/** Edges of a view. */
export interface ViewEdges {
  upright: EdgeLines;
  level: EdgeLines;
}

/** A frame that is found: how sure it is, 0 to 1, and by how much it is likelier than others. */
interface Found {
  frame: Frame;
  trust: number;
  score: number;
}

/** The share that two frames have in common of all that either covers. */
function overlap(a: Frame, b: Frame): number {
  const across = Math.min(a.right, b.right) - Math.max(a.left, b.left);
  const up = Math.min(a.bottom, b.bottom) - Math.max(a.top, b.top);
  const both = Math.max(0, across) * Math.max(0, up);
  const area = ({ left, top, right, bottom }: Frame) => (right - left) * (bottom - top);
  return both / (area(a) + area(b) - both);
}

/** The likeliest frames, each unlike the others. */
function likeliest() {
  let found: Found[] = [];
  return {
    /** What a frame must score to be among them, at least. */
    bar: () =>
      found.length === 0
        ? 0
        : Math.max(
            OTHERS.least * found[0].score,
            found.length < OTHERS.most ? 0 : found[found.length - 1].score,
          ),
    add(one: Found): void {
      const like = found.filter(({ frame }) => overlap(frame, one.frame) > OTHERS.same);
      if (like.some(({ score }) => score >= one.score)) return;
      found = [...found.filter((other) => !like.includes(other)), one]
        .sort((a, b) => b.score - a.score)
        .slice(0, OTHERS.most);
    },
    all: () => found.filter(({ score }) => score >= OTHERS.least * found[0].score),
  };
}

/** Lines on one side of the middle along which an edge is seen best beside it, the strongest first. */
function candidates(edges: EdgeLines, from: number, to: number, middle: number, reach: number): number[] {
  const strength = (line: number) => edges.strength(line, middle - reach, middle + reach);
  const found: { line: number; value: number }[] = [];
  for (let line = from; line <= to; line++) {
    const value = strength(line);
    if (value < strength(line - 1) || value <= strength(line + 1)) continue;
    if (edges.seen(line, middle - reach, middle + reach) > TRIED.seen) found.push({ line, value });
  }
  return found
    .sort((a, b) => b.value - a.value)
    .slice(0, TRIED.most)
    .map(({ line }) => line);
}

/** How little the sides of a rectangle go on beyond its corners, 0 to 1. */
function endsAtCorners(
  { upright, level }: ViewEdges,
  { left, top, right, bottom }: Frame,
  breadth: number,
): number {
  const ex = Math.max(BEYOND.least, Math.round(BEYOND.share * (right - left)));
  const ey = Math.max(BEYOND.least, Math.round(BEYOND.share * (bottom - top)));
  const both = (edges: EdgeLines, one: number, other: number, from: number, to: number) =>
    Math.min(edges.seen(one, from, to), edges.seen(other, from, to));
  const { narrow, broad } = BEYOND.across;
  const share = Math.min(1, Math.max(0, (breadth - LIGHT.narrow) / (LIGHT.broad - LIGHT.narrow)));
  const across = narrow + share * (broad - narrow);
  return (
    (1 - BEYOND.up * both(upright, left, right, bottom + 2, bottom + 2 + ey)) *
    (1 - BEYOND.up * both(upright, left, right, top - 2 - ey, top - 2)) *
    (1 - across * both(level, top, bottom, left - 2 - ex, left - 2)) *
    (1 - across * both(level, top, bottom, right + 2, right + 2 + ex))
  );
}

/** Mean of a part of a view, cut at its edges, codes. */
function meanOf({ data, width, height }: Plane, { left, top, right, bottom }: Frame): number {
  let [sum, count] = [0, 0];
  for (let y = Math.max(0, Math.round(top)); y < Math.min(height, bottom); y++) {
    for (let x = Math.max(0, Math.round(left)); x < Math.min(width, right); x++) {
      sum += data[y * width + x];
      count++;
    }
  }
  return sum / Math.max(1, count);
}

/** Whether what is framed differs from what lies beside it: a frame around more of the same wall is none. */
export function differsFromWall(view: Plane, frame: Frame): boolean {
  const { left, top, right, bottom } = frame;
  const [ex, ey] = [UNLIKE.share * (right - left), UNLIKE.share * (bottom - top)];
  const own = meanOf(view, frame);
  const off = (beside: Partial<Frame>) => Math.abs(meanOf(view, { ...frame, ...beside }) - own);
  const sides = Math.min(
    off({ left: left - ex, right: left - 2 }),
    off({ left: right + 2, right: right + ex }),
  );
  const ends = Math.min(
    off({ top: top - ey, bottom: top - 2 }),
    off({ top: bottom + 2, bottom: bottom + ey }),
  );
  return Math.max(sides, ends) >= UNLIKE.codes;
}

/**
 * Frames around the middle of a view: four edges, each seen along the whole of its side, that end at their corners.
 *
 * @param known whether the view's metres are those of the place
 * @returns the frames, the likeliest first, and how sure each is, 0 to 1; none where there is none
 */
export function windowFrames(
  { middle, metres, width, height }: SquareView,
  edges: ViewEdges,
  known: boolean,
): Omit<Found, 'score'>[] {
  const { upright, level } = edges;
  const least = (perPixel: number) => Math.max(SIDE.least, known ? SIDE.metres.least / perPixel : 0);
  const most = (perPixel: number) => (known ? SIDE.metres.most / perPixel : Infinity);
  const reach = { x: Math.ceil(least(metres.along) / 3), y: Math.ceil(least(metres.up) / 3) };
  const lefts = candidates(upright, 2, middle.x - 2, middle.y, reach.y);
  const rights = candidates(upright, middle.x + 2, width - 3, middle.y, reach.y);
  const tops = candidates(level, 2, middle.y - 2, middle.x, reach.x);
  const bottoms = candidates(level, middle.y + 2, height - 3, middle.x, reach.x);
  const best = likeliest();
  for (const left of lefts) {
    for (const right of rights) {
      const across = right - left;
      if (across < least(metres.along) || across > most(metres.along)) continue;
      const largest = (across * height) ** AREA;
      const breadth = known ? across * metres.along : 0;
      for (const top of tops) {
        const seenTop = level.seen(top, left, right);
        if (seenTop < SEEN.least || seenTop ** SEEN.power * largest <= best.bar()) continue;
        for (const bottom of bottoms) {
          const up = bottom - top;
          if (up < least(metres.up) || up > most(metres.up)) continue;
          const aspect = (across * metres.along) / (up * metres.up);
          if (aspect < ASPECT.least || aspect > ASPECT.most) continue;
          const seen = [
            seenTop,
            level.seen(bottom, left, right),
            upright.seen(left, top, bottom),
            upright.seen(right, top, bottom),
          ];
          const trust = Math.min(...seen);
          const bound = (seen[0] * seen[1] * seen[2] * seen[3]) ** SEEN.power * (across * up) ** AREA;
          if (trust < SEEN.least || bound <= best.bar()) continue;
          const frame = { left, top, right, bottom };
          const score = bound * endsAtCorners(edges, frame, breadth);
          if (score > best.bar()) best.add({ frame, trust, score });
        }
      }
    }
  }
  return best.all();
}
