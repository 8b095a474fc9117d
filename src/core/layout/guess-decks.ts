import type { Camera, PlatePoint } from '../geometry/camera';
import { groundPoint, horizonAt } from '../geometry/ground';
import type { PlateLine } from '../geometry/vanishing-point';
import { hypot } from '../plane/hypot';

/** The small picture of the lie of the land in which decks are looked for. */
interface LevelPicture {
  width: number;
  height: number;
  /** Coverage by what lies level. */
  ground: Float32Array;
}

/** A deck that was guessed: its outline as it is seen. */
export interface GuessedDeck {
  outline: PlatePoint[];
}

/** How far under the horizon edges and outlines lie at least, fractions of the height. */
const UNDER = { edge: 0.03, outline: 0.012 } as const;

/** How far to both sides of an edge the ground is looked at, fraction of the width; at how many places; how many must lie level. */
const SIDES = { away: 0.012, places: 12, level: 0.6 } as const;

/** Least length of an edge: metres on the ground, and fraction of the width as it is seen. */
const LONG = { metres: 4, seen: 0.15 } as const;

/** Edges that differ by no more than this in direction, cosine, and lie so near, fraction of the width, are one. */
const ONE = { cosine: 0.99, near: 0.03 } as const;

/** Edges whose ends are this near to where they cross make a corner, fraction of the width. */
const CORNER = 0.08;

/** Where the eye stands, as far as the picture shows: what lies here is the ground itself. */
const HERE: PlatePoint = { u: 0.5, v: 1 };

const cross = ([a, b]: PlateLine, { u, v }: PlatePoint) => (b.u - a.u) * (v - a.v) - (b.v - a.v) * (u - a.u);

/**
 * Decks by long straight edges across what lies level, such as a kerb's or a quay's: what lies beyond them. Two that meet make a corner.
 * How high a deck lies is not told.
 */
export function guessDecks(
  lines: readonly PlateLine[],
  land: LevelPicture,
  camera: Camera,
  horizon: { left: number; right: number },
): GuessedDeck[] {
  const { aspect } = camera;
  const seen = ([a, b]: PlateLine) => hypot(b.u - a.u, (b.v - a.v) / aspect);
  const onGround = ([a, b]: PlateLine) => {
    const [[ax, ay], [bx, by]] = [groundPoint(camera, a), groundPoint(camera, b)];
    return hypot(bx - ax, by - ay);
  };
  const edges: PlateLine[] = [];
  const long = lines
    .filter((line) => line.every(({ u, v }) => v > horizonAt(horizon, u) + UNDER.edge))
    .filter(
      (line) => seen(line) > LONG.seen && onGround(line) > LONG.metres && isOnGround(line, land, aspect),
    )
    .sort((p, q) => seen(q) - seen(p));
  for (const line of long) if (!edges.some((edge) => isOne(edge, line, aspect))) edges.push(line);
  const [first, second] = edges;
  if (!first) return [];
  const beyond = second && meets(first, second) ? [first, second] : [first];
  const outline = beyond.reduce(clipBeyond, groundOf(horizon));
  return outline.length < 3 ? [] : [{ outline }];
}

/** Whether what lies to both sides of a line lies level. */
function isOnGround([a, b]: PlateLine, { width, height, ground }: LevelPicture, aspect: number): boolean {
  const [du, dv] = [b.u - a.u, (b.v - a.v) / aspect];
  const long = hypot(du, dv);
  const [au, av] = [(-dv / long) * SIDES.away, (du / long) * SIDES.away * aspect];
  let level = 0;
  for (let k = 0; k < SIDES.places; k++) {
    const t = (k + 0.5) / SIDES.places;
    const isLevel = (side: number) => {
      const x = Math.floor((a.u + t * (b.u - a.u) + side * au) * width);
      const y = Math.floor((a.v + t * (b.v - a.v) + side * av) * height);
      return x >= 0 && y >= 0 && x < width && y < height && ground[y * width + x] > 0.5;
    };
    if (isLevel(1) && isLevel(-1)) level++;
  }
  return level >= SIDES.level * SIDES.places;
}

/** Whether two lines are of one edge. */
function isOne(a: PlateLine, b: PlateLine, aspect: number): boolean {
  const way = ([from, to]: PlateLine) => [to.u - from.u, (to.v - from.v) / aspect];
  const [p, q] = [way(a), way(b)];
  const cosine = Math.abs(p[0] * q[0] + p[1] * q[1]) / (Math.hypot(...p) * Math.hypot(...q));
  if (cosine < ONE.cosine) return false;
  const middle = { u: (b[0].u + b[1].u) / 2, v: (b[0].v + b[1].v) / 2 };
  return Math.abs(cross(a, middle)) / aspect / Math.hypot(...p) < ONE.near;
}

/** Whether two edges end where they cross. */
function meets(a: PlateLine, b: PlateLine): boolean {
  const [from, to] = [cross(a, b[0]), cross(a, b[1])];
  if (Math.abs(from - to) < 1e-9) return false;
  const t = from / (from - to);
  const at = { u: b[0].u + t * (b[1].u - b[0].u), v: b[0].v + t * (b[1].v - b[0].v) };
  const near = (line: PlateLine) => Math.min(...line.map(({ u, v }) => hypot(u - at.u, v - at.v)));
  return near(a) < CORNER && near(b) < CORNER;
}

/** The picture under the horizon. */
const groundOf = ({ left, right }: { left: number; right: number }): PlatePoint[] => [
  { u: 0, v: left + UNDER.outline },
  { u: 1, v: right + UNDER.outline },
  { u: 1, v: 1 },
  { u: 0, v: 1 },
];

/** What of an outline lies on the far side of a line (Sutherland and Hodgman 1974). */
function clipBeyond(outline: PlatePoint[], line: PlateLine): PlatePoint[] {
  const here = Math.sign(cross(line, HERE));
  return outline.flatMap((a, i) => {
    const b = outline[(i + 1) % outline.length];
    const [atA, atB] = [here * cross(line, a), here * cross(line, b)];
    const kept = atA <= 0 ? [a] : [];
    if (atA > 0 === atB > 0) return kept;
    const t = atA / (atA - atB);
    return [...kept, { u: a.u + t * (b.u - a.u), v: a.v + t * (b.v - a.v) }];
  });
}
