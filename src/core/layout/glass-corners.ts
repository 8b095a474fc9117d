import type { EdgeLines } from './edge-lines';
import type { ViewScale } from './square-view';
import type { Frame, ViewEdges } from './window-frame';

/** A line across a view: where it is at the start and at the end of what it bounds, pixels. */
type Side = readonly [start: number, end: number];

/**
 * How far inside of a frame its glass may begin: metres where they are known, else share of the window; pixels at least, and share at most;
 * how strong that edge is against the strongest there, and how much of it is seen.
 */
const INSIDE = { share: 0.14, metres: 0.17, least: 2, most: 0.2, strength: 0.3, seen: 0.75 } as const;

/** How far the ends of a side move to follow its edge, pixels, and share of the window; how far one more than the other. */
const FOLLOW = { most: 5, share: 0.08, turn: 2, step: 0.5 } as const;

/** The innermost strong edge close inside a side: where the frame ends and glass begins. */
function glassEdge(
  edges: EdgeLines,
  line: number,
  inward: 1 | -1,
  size: number,
  from: number,
  to: number,
  metres?: number,
) {
  const reach = Math.max(
    INSIDE.least,
    metres === undefined
      ? Math.floor(INSIDE.share * size)
      : Math.min(Math.round(INSIDE.metres / metres), Math.floor(INSIDE.most * size)),
  );
  const lines = Array.from({ length: reach + 1 }, (_, k) => line + k * inward);
  const strength = (at: number) => edges.strength(at, from, to);
  const strongest = Math.max(...lines.map(strength));
  return (
    lines.findLast(
      (at) =>
        strength(at) >= INSIDE.strength * strongest &&
        strength(at) >= strength(at + 1) &&
        strength(at) >= strength(at - 1) &&
        edges.seen(at, from, to) > INSIDE.seen,
    ) ?? line
  );
}

/** A side whose ends follow its edge: upright and level things may be turned a little against what the plan says. */
function followEdge(
  { contrast, length, lines }: EdgeLines,
  line: number,
  size: number,
  from: number,
  to: number,
): Side {
  const reach = Math.max(1, Math.min(FOLLOW.most, Math.round(FOLLOW.share * size)));
  const across = (a: number, b: number) => {
    let sum = 0;
    for (let n = from; n < to; n++) {
      const x = line + a + ((b - a) * (n - from)) / (to - from);
      const left = Math.floor(x);
      if (left < 0 || left + 1 >= lines) continue;
      const at = left * length + n;
      sum += contrast[at] + (x - left) * (contrast[at + length] - contrast[at]);
    }
    return sum;
  };
  let best: Side = [line, line];
  let most = -1;
  for (let a = -reach; a <= reach; a += FOLLOW.step) {
    for (let b = Math.max(-reach, a - FOLLOW.turn); b <= Math.min(reach, a + FOLLOW.turn); b += FOLLOW.step) {
      const sum = across(a, b) * (1 - 0.01 * (Math.abs(a) + Math.abs(b)));
      if (sum > most) [most, best] = [sum, [line + a, line + b]];
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

/** The corners of a frame whose sides follow their edges, from the upper left, around, pixels of the view. */
export function followFrame({ upright, level }: ViewEdges, frame: Frame): [x: number, y: number][] {
  const { left, top, right, bottom } = frame;
  const [across, up] = [right - left, bottom - top];
  const sides = {
    left: followEdge(upright, left, across, top, bottom),
    right: followEdge(upright, right, across, top, bottom),
    top: followEdge(level, top, up, left, right),
    bottom: followEdge(level, bottom, up, left, right),
  };
  return [
    meet(sides.left, sides.top, frame),
    meet(sides.right, sides.top, frame),
    meet(sides.right, sides.bottom, frame),
    meet(sides.left, sides.bottom, frame),
  ];
}

/**
 * The corners of the glass within a frame, from the upper left, around, pixels of the view.
 *
 * @param metres of a pixel, where they are known
 */
export function glassCorners(
  edges: ViewEdges,
  { left, top, right, bottom }: Frame,
  metres?: ViewScale,
): [x: number, y: number][] {
  const { upright, level } = edges;
  const [across, up] = [right - left, bottom - top];
  return followFrame(edges, {
    left: glassEdge(upright, left, 1, across, top, bottom, metres?.along),
    right: glassEdge(upright, right, -1, across, top, bottom, metres?.along),
    top: glassEdge(level, top, 1, up, left, right, metres?.up),
    bottom: glassEdge(level, bottom, -1, up, left, right, metres?.up),
  });
}
