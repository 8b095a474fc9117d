import type { Plane } from '../plane/plane';
import type { EdgeLines } from './edge-lines';
import { glassDepth, type Side } from './glass-depth';
import type { ViewScale } from './square-view';
import type { Frame, ViewEdges } from './window-frame';

/** How far inside of a frame its glass may begin: metres where they are known, else share of the window; pixels at least, and share at most. */
const INSIDE = { share: 0.14, metres: 0.2, least: 2, most: 0.2 } as const;

/** How far the ends of a side move to follow its edge, pixels, and share of the window; how far one more than the other. */
const FOLLOW = { most: 5, share: 0.08, turn: 2, step: 0.5 } as const;

/** How far the sides of glass, once found, are still moved, pixels. */
const SETTLE = 1;

/** How far inside of its frame the glass of a window may begin, pixels. */
const reachInside = (size: number, metres?: number): number =>
  Math.max(
    INSIDE.least,
    metres === undefined
      ? Math.floor(INSIDE.share * size)
      : Math.min(Math.round(INSIDE.metres / metres), Math.floor(INSIDE.most * size)),
  );

/** A side whose ends follow its edge: upright and level things may be turned a little against what the plan says. */
function followEdge(
  { contrast, length, lines }: EdgeLines,
  [start, end]: Side,
  reach: number,
  from: number,
  to: number,
): Side {
  const across = (a: number, b: number) => {
    let sum = 0;
    for (let n = from; n < to; n++) {
      const x = start + a + ((end - start + b - a) * (n - from)) / (to - from);
      const left = Math.floor(x);
      if (left < 0 || left + 1 >= lines) continue;
      const at = left * length + n;
      sum += contrast[at] + (x - left) * (contrast[at + length] - contrast[at]);
    }
    return sum;
  };
  let best: Side = [start, end];
  let most = -1;
  for (let a = -reach; a <= reach; a += FOLLOW.step) {
    for (let b = Math.max(-reach, a - FOLLOW.turn); b <= Math.min(reach, a + FOLLOW.turn); b += FOLLOW.step) {
      const sum = across(a, b) * (1 - 0.01 * (Math.abs(a) + Math.abs(b)));
      if (sum > most) [most, best] = [sum, [start + a, end + b]];
    }
  }
  return best;
}

/** Where an upright side and a level one meet. */
function meet(upright: Side, level: Side, { left, top, right, bottom }: Frame): [x: number, y: number] {
  let [x, y] = [upright[0], level[0]];
  for (let round = 0; round < 4; round++) {
    x = upright[0] + ((upright[1] - upright[0]) * (y - top)) / (bottom - top);
    y = level[0] + ((level[1] - level[0]) * (x - left)) / (right - left);
  }
  return [x, y];
}

type Sides = Record<'left' | 'right' | 'top' | 'bottom', Side>;

/** The sides of a frame as they follow their edges. */
function followSides({ upright, level }: ViewEdges, frame: Frame): Sides {
  const { left, top, right, bottom } = frame;
  const follow = (edges: EdgeLines, line: number, size: number, from: number, to: number) => {
    const reach = Math.max(1, Math.min(FOLLOW.most, Math.round(FOLLOW.share * size)));
    return followEdge(edges, [line, line], reach, from, to);
  };
  return {
    left: follow(upright, left, right - left, top, bottom),
    right: follow(upright, right, right - left, top, bottom),
    top: follow(level, top, bottom - top, left, right),
    bottom: follow(level, bottom, bottom - top, left, right),
  };
}

const cornersOf = (sides: Sides, frame: Frame): [x: number, y: number][] => [
  meet(sides.left, sides.top, frame),
  meet(sides.right, sides.top, frame),
  meet(sides.right, sides.bottom, frame),
  meet(sides.left, sides.bottom, frame),
];

/** The corners of a frame whose sides follow their edges, from the upper left, around, pixels of the view. */
export const followFrame = (edges: ViewEdges, frame: Frame): [x: number, y: number][] =>
  cornersOf(followSides(edges, frame), frame);

/**
 * The corners of the glass within a frame, from the upper left, around, pixels of the view.
 *
 * @param view what the edges are of
 * @param metres of a pixel, where they are known
 */
export function glassCorners(
  view: Plane,
  edges: ViewEdges,
  frame: Frame,
  metres?: ViewScale,
): [x: number, y: number][] {
  const outer = followSides(edges, frame);
  const glass = (of: keyof Sides): Side => {
    const upright = of === 'left' || of === 'right';
    const inward = of === 'left' || of === 'top' ? 1 : -1;
    const [from, to] = upright ? [frame.top, frame.bottom] : [frame.left, frame.right];
    const size = upright ? frame.right - frame.left : frame.bottom - frame.top;
    const reach = reachInside(size, upright ? metres?.along : metres?.up);
    const [start, end] = outer[of];
    const depth = inward * glassDepth(view, { upright, inward, from, to, ends: [start, end] }, reach);
    if (depth === 0) return [start, end];
    return followEdge(upright ? edges.upright : edges.level, [start + depth, end + depth], SETTLE, from, to);
  };
  return cornersOf(
    { left: glass('left'), right: glass('right'), top: glass('top'), bottom: glass('bottom') },
    frame,
  );
}
