import type { Camera, PlatePoint } from '../geometry/camera';
import { groundPoint, horizonAt } from '../geometry/ground';
import { fromLeft, lineAt } from '../geometry/line-at';
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

/** A pavement along a wall: how broad, metres, and the most that its kerb may turn away from the wall, metres in each metre. */
const PAVEMENT = { least: 0.8, most: 6, turn: 0.1 } as const;

/** Share of a pavement's edge along which its kerb is seen, at least: what goes on beyond may turn a corner. */
const KERB_SEEN = 0.7;

/** How far before the foot of its wall a pavement ends, fraction of the height: it lies before the wall and not under it. */
const BEFORE_WALL = 0.004;

/** A pavement that ends nearer than this in the midst of the picture, in eye heights, goes on around a corner. */
const NEAR_END = 7;

/** An end so near to a side of the picture lies outside of it, fraction of the width. */
const AT_SIDE = 0.02;

/** A corner so near to a line lies on it, fraction of the plate. */
const ON_IT = 1e-6;

const cross = ([a, b]: PlateLine, { u, v }: PlatePoint) => (b.u - a.u) * (v - a.v) - (b.v - a.v) * (u - a.u);

/**
 * Pavements: what lies between the foot of a wall and a long straight edge beside it across what lies level, a kerb's. An edge that runs
 * along no wall is said to be nothing: joints and bands of paving are such edges too. How high a pavement lies is not told.
 */
export function guessDecks(
  lines: readonly PlateLine[],
  walls: readonly PlateLine[],
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
  const edges = lines
    .filter((line) => line.every(({ u, v }) => v > horizonAt(horizon, u) + UNDER.edge))
    .filter(
      (line) => seen(line) > LONG.seen && onGround(line) > LONG.metres && isOnGround(line, land, aspect),
    )
    .sort((p, q) => seen(q) - seen(p));
  return walls.flatMap((wall) => {
    const pavements = edges
      .filter((edge) => isBeside(camera, edge, wall))
      .map((kerb) => ({ kerb, outline: pavementBetween(fromLeft(...wall), kerb, horizon) }));
    const sure = pavements.find(
      ({ kerb, outline }) => seenShare(outline, kerb) >= KERB_SEEN && !endsNear(outline, camera),
    );
    return sure ? [{ outline: sure.outline }] : [];
  });
}

/** Whether an edge runs along a wall's foot on the ground, as a kerb does, on the side of the eye. */
function isBeside(camera: Camera, edge: PlateLine, wall: PlateLine): boolean {
  const [[ax, ay], [bx, by]] = wall.map((at) => groundPoint(camera, at));
  const long = hypot(bx - ax, by - ay);
  const [nx, ny] = [(by - ay) / long, (ax - bx) / long];
  const toEye = Math.sign(-(ax * nx + ay * ny));
  const ends = edge.map((at) => groundPoint(camera, at));
  const away = ends.map(([x, y]) => toEye * ((x - ax) * nx + (y - ay) * ny));
  const length = hypot(ends[1][0] - ends[0][0], ends[1][1] - ends[0][1]);
  return (
    away.every((metres) => metres > PAVEMENT.least && metres < PAVEMENT.most) &&
    Math.abs(away[1] - away[0]) < PAVEMENT.turn * length
  );
}

/** What is seen of the ground between a kerb and the foot of a wall, as far as the wall goes. */
function pavementBetween(
  foot: PlateLine,
  kerb: PlateLine,
  horizon: { left: number; right: number },
): PlatePoint[] {
  const u = (at: number) => Math.min(1, Math.max(0, at));
  const [from, to] = [u(foot[0].u), u(foot[1].u)];
  const picture = [
    { u: from, v: horizonAt(horizon, from) + UNDER.outline },
    { u: to, v: horizonAt(horizon, to) + UNDER.outline },
    { u: to, v: 1 },
    { u: from, v: 1 },
  ];
  const lower = ({ u, v }: PlatePoint) => ({ u, v: v + BEFORE_WALL });
  const before: PlateLine = [lower(foot[0]), lower(foot[1])];
  const middle = { u: (from + to) / 2, v: lineAt(foot, (from + to) / 2) };
  return clip(clip(picture, before, { u: middle.u, v: 2 }), kerb, middle);
}

/** Whether an outline ends near to the eye in the midst of the picture: upright, as the wall beside it does. */
const endsNear = (outline: readonly PlatePoint[], camera: Camera): boolean =>
  outline.some((at, i) => {
    const next = outline[(i + 1) % outline.length];
    if (Math.abs(next.u - at.u) > ON_IT || at.u < AT_SIDE || at.u > 1 - AT_SIDE) return false;
    const [, ahead] = groundPoint(camera, { u: at.u, v: Math.max(at.v, next.v) });
    return ahead < NEAR_END * camera.eyeHeight;
  });

/** How much of the side of an outline that lies along an edge is that edge as it is seen, 0 to 1. */
function seenShare(outline: readonly PlatePoint[], [a, b]: PlateLine): number {
  const [du, dv] = [b.u - a.u, b.v - a.v];
  const long2 = du * du + dv * dv;
  const onIt = outline.filter((at) => Math.abs(cross([a, b], at)) < ON_IT * Math.sqrt(long2));
  const ways = onIt.map(({ u, v }) => ((u - a.u) * du + (v - a.v) * dv) / long2);
  const [from, to] = [Math.min(...ways), Math.max(...ways)];
  return to > from ? Math.max(0, Math.min(1, to) - Math.max(0, from)) / (to - from) : 0;
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

/** What of an outline lies on that side of a line on which a place lies (Sutherland and Hodgman 1974). */
function clip(outline: PlatePoint[], line: PlateLine, place: PlatePoint): PlatePoint[] {
  const side = Math.sign(cross(line, place));
  return outline.flatMap((a, i) => {
    const b = outline[(i + 1) % outline.length];
    const [atA, atB] = [side * cross(line, a), side * cross(line, b)];
    const kept = atA >= 0 ? [a] : [];
    if (atA < 0 === atB < 0) return kept;
    const t = atA / (atA - atB);
    return [...kept, { u: a.u + t * (b.u - a.u), v: a.v + t * (b.v - a.v) }];
  });
}
