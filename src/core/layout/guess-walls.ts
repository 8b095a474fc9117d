import type { PlatePoint } from '../geometry/camera';
import { horizonAt } from '../geometry/ground';
import { linearToOklab } from '../color/linear-to-oklab';
import type { RgbPlanes } from '../plane/plane';
import { LIGHTNESS_WEIGHT } from '../survey/ground-tones';
import type { PlateLine } from '../geometry/vanishing-point';
import type { Perspective, VanishingPlace } from './guess-horizon';
import { plateEdges, sineToward } from './plate-edges';
import { meetingUprights, TOWARD_UPRIGHT } from './upright-edges';

/** What a small copy of the plate says about the lie of the land: coverages by ground and sky, 0 to 1. */
export interface LandCover {
  width: number;
  height: number;
  ground: Float32Array;
  sky: Float32Array;
}

/** The same with what the plate shows there, linear light. */
export interface SeenCover extends LandCover {
  plate: RgbPlanes;
}

/** A wall that was guessed: its foot, from the left to the right, and how much stands for it. */
export interface GuessedWall {
  foot: [PlatePoint, PlatePoint];
  trust: number;
}

/** Sine up to which an edge runs toward a place. */
const TOWARD = 0.016;

/** How far under the horizon a foot lies at least, and over it uprights of a wall begin at most, fractions of the height. */
const UNDER = 0.014;
const BEGINS = 0.02;

/** Uprights end on one foot whose slopes, seen from where it runs to, differ by no more than this, as a share. */
const ONE_FOOT = 0.08;

/** Uprights that must end on a foot, so far apart, as fractions of the width and of the wall, and what each counts at most. */
const ENDS = { least: 3, apart: 0.012, share: 1 / 12, most: 0.15 } as const;

/** What an upright counts that goes on below a foot. */
const CROSSING = 0.5;

/** Least that must stand for a wall, widths of upright edges. */
const TRUST = 0.16;

/** Ground begins under a foot within so many times the foot's depth under the horizon, in half of its columns. */
const GROUND = { within: 2.2, share: 0.5 } as const;

/** A foot moves down to where ground begins if that is so many times as deep; strips beside it are compared over such a share of its depth. */
const MOVED = 1.1;
const STRIP = 0.3;

/** Columns in which a wall's own edges are counted, and how many may lack them in a row. */
const COLUMNS = { count: 64, gap: 5 } as const;

/** How far over the horizon an edge lies that tells one wall from another, fraction of the height. */
const TELLS = 0.03;

/** Shortest wall, and how far from where it runs to it ends, fractions of the width. */
const SHORTEST = 0.09;
const AWAY = 0.015;

/** Share of a wall's columns that a surer one may have. */
const SHARED = 0.4;

/** An upright edge that reaches from over the horizon to under it. */
interface Upright {
  foot: PlatePoint;
  counts: number;
}

/** A level edge over the horizon. */
type Level = PlateLine;

/**
 * Walls by where their edges run: toward one place on the horizon, over it and below, with uprights that end on their foot. A kerb runs
 * there too, but nothing upright ends on it. Only walls that are sure are told, the surest first.
 *
 * @param lines straight edges of the plate
 * @param perspective what they say of the horizon
 * @param aspect width of the plate over its height
 */
export function guessWalls(
  lines: readonly PlateLine[],
  { horizon, level }: Pick<Perspective, 'horizon' | 'level'>,
  cover: SeenCover,
  aspect: number,
): GuessedWall[] {
  const { uprights, levels } = sorted(lines, horizon, aspect);
  const found = level.flatMap((place) =>
    ([-1, 1] as const).flatMap((side) => {
      const own = { place, side, horizon, aspect };
      return wallOf(
        own,
        uprights.filter(({ foot }) => isBeside(own, foot.u)),
        levels,
        cover,
      );
    }),
  );
  found.sort((a, b) => b.trust - a.trust);
  const kept: GuessedWall[] = [];
  for (const wall of found) if (kept.every((other) => shared(wall, other) < SHARED)) kept.push(wall);
  return kept;
}

/** Uprights across the horizon, and level edges over it. */
function sorted(lines: readonly PlateLine[], horizon: Perspective['horizon'], aspect: number) {
  const edges = plateEdges(lines, aspect);
  const meeting = meetingUprights(edges) ?? { lean: 0, along: 0 };
  const uprights: Upright[] = [];
  const levels: Level[] = [];
  lines.forEach((line, i) => {
    const [top, foot] = line[0].v < line[1].v ? line : [line[1], line[0]];
    if (sineToward(edges[i], meeting.lean, 1, meeting.along) < 1.4 * TOWARD_UPRIGHT) {
      const crosses =
        foot.v > horizonAt(horizon, foot.u) + UNDER && top.v < horizonAt(horizon, top.u) + BEGINS;
      if (crosses) uprights.push({ foot, counts: Math.min(ENDS.most, edges[i].length) });
    } else if (foot.v < horizonAt(horizon, foot.u) - TELLS) levels.push(line);
  });
  return { uprights, levels };
}

/** The half of the plate on one side of a place on the horizon: a wall that runs there lies on one of them. */
interface Side {
  place: VanishingPlace;
  side: -1 | 1;
  horizon: Perspective['horizon'];
  aspect: number;
}

const isBeside = ({ place, side }: Side, u: number) => (u - place.u) * side > AWAY;

/** Slope under the horizon of the line from a side's place through a point. */
const slopeOf = ({ place, horizon }: Side, { u, v }: PlatePoint) =>
  (v - horizonAt(horizon, u)) / Math.abs(u - place.u);

const onSlope = ({ place, horizon }: Side, u: number, slope: number): PlatePoint => ({
  u,
  v: horizonAt(horizon, u) + slope * Math.abs(u - place.u),
});

/** The wall of one side, if there is a sure one. */
function wallOf(own: Side, uprights: readonly Upright[], levels: readonly Level[], cover: SeenCover) {
  const feet = uprights
    .map(({ foot, counts }) => ({ u: foot.u, counts, slope: slopeOf(own, foot) }))
    .sort((a, b) => a.slope - b.slope);
  const spans = spansOf(own, levels);
  let best: GuessedWall | undefined;
  for (const { slope } of feet) {
    const ends = feet.filter((one) => Math.abs(Math.log(one.slope / slope)) < ONE_FOOT);
    const span = spans.find(({ from, to }) => placesWithin(ends, from, to) >= ENDS.least);
    if (!span) continue;
    const within = (one: { u: number }) => one.u > span.from && one.u < span.to;
    const sum = (some: typeof feet) => some.filter(within).reduce((all, { counts }) => all + counts, 0);
    const middle = median(ends.filter(within).map((one) => one.slope));
    const crossing = sum(feet.filter((one) => Math.log(one.slope / middle) > 1.5 * ONE_FOOT));
    const trust = sum(ends) - CROSSING * crossing;
    if (trust < Math.max(TRUST, best?.trust ?? 0)) continue;
    const first = footOf(own, span, middle);
    const begins = first && whereGroundBegins(own, first, middle, cover);
    if (!begins) continue;
    const lowest = begins > middle * MOVED && isOfWall(own, first, [middle, begins], cover) ? begins : middle;
    const foot = footOf(own, span, lowest);
    if (foot) best = { foot, trust };
  }
  return best ? [best] : [];
}

const median = (values: number[]) => values.sort((a, b) => a - b)[values.length >> 1];

/** At how many places apart uprights end within a span. */
function placesWithin(ends: readonly { u: number }[], from: number, to: number): number {
  const us = ends.map(({ u }) => u).sort((a, b) => a - b);
  const apart = Math.max(ENDS.apart, ENDS.share * (to - from));
  let [count, last] = [0, -Infinity];
  for (const u of us) {
    if (u < from || u > to || u - last < apart) continue;
    count++;
    last = u;
  }
  return count;
}

interface Span {
  from: number;
  to: number;
}

/** Where along a side level edges run toward its place, over the horizon: the longest first. */
function spansOf(own: Side, levels: readonly Level[]): Span[] {
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

/** The foot of a wall over a span; undefined where too little of it lies in the picture. */
function footOf(own: Side, { from, to }: Span, slope: number): [PlatePoint, PlatePoint] | undefined {
  const { place, side } = own;
  // Where it is clear of the horizon, and of where it runs to.
  const away = Math.max(AWAY, UNDER / slope);
  const [left, right] =
    side < 0 ? [from, Math.min(to, place.u - away)] : [Math.max(from, place.u + away), to];
  if (right - left < SHORTEST) return undefined;
  return [onSlope(own, left, slope), onSlope(own, right, slope)];
}

/** The slope at which ground begins under a foot, or that of the foot where ground begins here and there; undefined where it does not. */
function whereGroundBegins(
  own: Side,
  [a, b]: [PlatePoint, PlatePoint],
  slope: number,
  { width, height, ground }: LandCover,
): number | undefined {
  const begins: number[] = [];
  let all = 0;
  for (let x = Math.floor(Math.max(0, a.u) * width); x < Math.min(width, b.u * width); x++) {
    const u = (x + 0.5) / width;
    const from = Math.max(0, Math.floor(onSlope(own, u, slope).v * height));
    const until = Math.min(height - 1, Math.ceil(onSlope(own, u, GROUND.within * slope).v * height));
    if (from >= height) continue;
    all++;
    let y = from;
    while (y <= until && !(ground[y * width + x] > 0.5)) y++;
    if (y <= until) begins.push(Math.max(slope, slopeOf(own, { u, v: (y + 0.5) / height })));
  }
  if (all === 0) return slope;
  if (begins.length < GROUND.share * all) return undefined;
  const middle = median(begins);
  const agreed = begins.filter((one) => Math.abs(Math.log(one / middle)) < ONE_FOOT).length;
  return agreed > GROUND.share * begins.length ? middle : slope;
}

/** Whether what lies between two slopes looks like the wall over it, rather than like the ground under it. */
function isOfWall(
  own: Side,
  foot: [PlatePoint, PlatePoint],
  [upper, lower]: [number, number],
  cover: SeenCover,
) {
  const over = toneBetween(own, foot, (1 - STRIP) * upper, upper / (1 + STRIP / 4), cover);
  const between = toneBetween(own, foot, upper * (1 + STRIP / 8), lower / (1 + STRIP / 8), cover);
  const under = toneBetween(own, foot, lower * (1 + STRIP / 4), lower * (1 + STRIP), cover);
  const apart = (p: Tone, q: Tone) => Math.hypot(...p.map((value, c) => value - q[c]));
  return apart(between, over) < apart(between, under);
}

type Tone = readonly [number, number, number];

/** The mean tone of what lies between two slopes under the horizon, along a foot; Oklab, lightness weighed down. */
function toneBetween(
  own: Side,
  [a, b]: [PlatePoint, PlatePoint],
  from: number,
  to: number,
  cover: SeenCover,
): Tone {
  const { width, height, plate } = cover;
  const sum = [0, 0, 0];
  let count = 0;
  for (let x = Math.floor(Math.max(0, a.u) * width); x < Math.min(width, b.u * width); x++) {
    const u = (x + 0.5) / width;
    const [first, last] = [from, to].map((slope) => Math.round(onSlope(own, u, slope).v * height));
    for (let y = Math.max(0, first); y < Math.min(height, last); y++) {
      const i = y * width + x;
      const tone = linearToOklab([plate.r[i], plate.g[i], plate.b[i]]);
      tone.forEach((value, c) => (sum[c] += (c === 0 ? LIGHTNESS_WEIGHT : 1) * value));
      count++;
    }
  }
  const [l, p, q] = sum.map((value) => value / Math.max(1, count));
  return [l, p, q];
}

/** Share of a wall's columns that another has too. */
function shared({ foot: [a, b] }: GuessedWall, { foot: [c, d] }: GuessedWall): number {
  return Math.max(0, Math.min(b.u, d.u) - Math.max(a.u, c.u)) / (b.u - a.u);
}
