import { LUMINANCE } from '../color/luminance';
import type { PlatePoint } from '../geometry/camera';
import { horizonAt } from '../geometry/ground';
import { median } from '../plane/median';
import type { Plane, RgbPlanes } from '../plane/plane';
import type { PlateLine } from '../geometry/vanishing-point';
import type { Perspective } from './guess-horizon';
import { cutFoot } from './cut-wall';
import { lowerFoot, type LowUpright } from './lower-foot';
import { settleFoot, type SeenCover } from './settle-foot';
import { AWAY, isBeside, ONE_FOOT, onSlope, placesApart, slopeOf, type Side } from './wall-side';
import { toneFoot } from './tone-foot';
import { plateEdges, sineToward } from './plate-edges';
import { isUprightBetween, uprightShares, whereUprightsEnd } from './upright-share';
import { TOWARD_UPRIGHT, type Uprights } from './upright-edges';
import { spansOf, type Span } from './wall-spans';

/**
 * A wall that was guessed: its foot, from the left to the right, and how much stands for it: widths of upright edges, or by how much the
 * share of upright grain drops at it.
 */
export interface GuessedWall {
  foot: [PlatePoint, PlatePoint];
  trust: number;
}

/** How far under the horizon a foot lies at least, and over it uprights of a wall begin at most, fractions of the height. */
const UNDER = 0.014;
const BEGINS = 0.02;

/** Uprights that must end on a foot, so far apart, as fractions of the width and of the wall, and what each counts at most. */
const ENDS = { least: 3, apart: 0.012, share: 1 / 12, most: 0.15 } as const;

/** What an upright counts that goes on below a foot. */
const CROSSING = 0.5;

/** Least that must stand for a wall, widths of upright edges. */
const TRUST = 0.16;

/** How far from the picture's middle a place may lie for what crosses its edges to tell, widths. */
const NEAR_PLACE = 2;

/** By how much the share of upright edges drops at a foot at least. */
const DROP = 0.08;

/** How far over the horizon an edge lies that tells one wall from another, fraction of the height. */
const TELLS = 0.03;

/** Shortest wall, fraction of the width. */
const SHORTEST = 0.09;

/** A wall whose edges end so near to the picture's border goes on to it, fraction of the width. */
const BORDER = 0.06;

/** Share of a wall's columns that a surer one may have. */
const SHARED = 0.4;

/** Uprights where nothing says how they lean. */
const PARALLEL: Uprights = { lean: 0, along: 0, support: 0 };

/** What is known of a plate: its cover, its tones as codes, uprights under its horizon and where uprights meet. */
interface SeenPlate {
  cover: SeenCover;
  tones: Plane;
  lows: readonly LowUpright[];
  meeting: Uprights;
}

/** An upright edge that reaches from over the horizon to under it. */
interface Upright {
  foot: PlatePoint;
  counts: number;
}

/**
 * Walls by where their edges run: toward one place on the horizon, over it and below, with uprights that end on their foot. A kerb runs
 * there too, but nothing upright ends on it. Where too few uprights are seen whole, the grain of the plate tells. Only walls that are sure
 * are told, those by uprights mostly first.
 *
 * @param lines straight edges of the plate
 * @param perspective what they say of the horizon
 * @param aspect width of the plate over its height
 */
export function guessWalls(
  lines: readonly PlateLine[],
  perspective: Pick<Perspective, 'horizon' | 'level' | 'uprights'>,
  cover: SeenCover,
  aspect: number,
): GuessedWall[] {
  const { horizon, level, uprights: meeting = PARALLEL } = perspective;
  const { uprights, lows, levels } = sorted(lines, horizon, meeting, aspect);
  const seen = { cover, tones: codesOf(cover.plate), lows, meeting };
  const found = level.flatMap((place) =>
    ([-1, 1] as const).flatMap((side) => {
      const own = { place, side, horizon, aspect };
      const spans = spansOf(own, levels);
      const beside = uprights.filter(({ foot }) => isBeside(own, foot.u));
      return (
        (spans[0] && cutFoot(own, [...uprights, ...lows], spans[0])) ??
        wallOf(own, beside, spans, seen) ??
        wallByTexture(own, spans, seen) ??
        []
      );
    }),
  );
  found.sort((a, b) => b.trust - a.trust);
  const kept: GuessedWall[] = [];
  for (const wall of found) if (kept.every((other) => shared(wall, other) < SHARED)) kept.push(wall);
  return kept;
}

/** Uprights across the horizon and under it, and level edges over it. */
function sorted(
  lines: readonly PlateLine[],
  horizon: Perspective['horizon'],
  meeting: Uprights,
  aspect: number,
) {
  const edges = plateEdges(lines, aspect);
  const uprights: Upright[] = [];
  const lows: LowUpright[] = [];
  const levels: PlateLine[] = [];
  lines.forEach((line, i) => {
    const [top, foot] = line[0].v < line[1].v ? line : [line[1], line[0]];
    if (sineToward(edges[i], meeting.lean, 1, meeting.along) < 1.4 * TOWARD_UPRIGHT) {
      if (foot.v < horizonAt(horizon, foot.u) + UNDER) return;
      const counts = Math.min(ENDS.most, edges[i].length);
      if (top.v < horizonAt(horizon, top.u) + BEGINS) uprights.push({ foot, counts });
      else lows.push({ top, foot, counts });
    } else if (foot.v < horizonAt(horizon, foot.u) - TELLS) levels.push(line);
  });
  return { uprights, lows, levels };
}

/** Light as the eye steps through it, roughly: codes of luminance. */
function codesOf({ width, height, r, g, b }: RgbPlanes): Plane {
  const code = (_: unknown, i: number) =>
    255 * Math.sqrt(Math.max(0, LUMINANCE[0] * r[i] + LUMINANCE[1] * g[i] + LUMINANCE[2] * b[i]));
  return { width, height, data: Float32Array.from(r, code) };
}

/** The wall of one side by what crosses it: upright over its foot, hardly ever below. */
function wallByTexture(own: Side, [span]: readonly Span[], seen: SeenPlate): GuessedWall | undefined {
  const { cover, tones, meeting } = seen;
  const { place, side } = own;
  if (!span || Math.abs(place.u - 0.5) > NEAR_PLACE) return undefined;
  const half = side < 0 ? { from: 0, to: Math.min(1, place.u) } : { from: Math.max(0, place.u), to: 1 };
  for (const { slope, drop } of whereUprightsEnd(uprightShares(own, tones, half, meeting))) {
    if (drop < DROP) break;
    const foot = footOf(own, span, slope);
    if (foot && settleFoot(own, foot, slope, cover) !== undefined) return { foot, trust: drop };
  }
  return undefined;
}

/** The wall of one side by uprights that end on its foot, if there is a sure one. */
function wallOf(own: Side, uprights: readonly Upright[], spans: readonly Span[], seen: SeenPlate) {
  const feet = uprights
    .map(({ foot, counts }) => ({ u: foot.u, counts, slope: slopeOf(own, foot) }))
    .sort((a, b) => a.slope - b.slope);
  let best: { trust: number; span: Span; slope: number } | undefined;
  for (const { slope } of feet) {
    const ends = feet.filter((one) => Math.abs(Math.log(one.slope / slope)) < ONE_FOOT);
    const span = spans.find((one) => placesWithin(ends, one) >= ENDS.least);
    if (!span) continue;
    const within = (one: { u: number }) => one.u > span.from && one.u < span.to;
    const sum = (some: typeof feet) => some.filter(within).reduce((all, { counts }) => all + counts, 0);
    const middle = median(ends.filter(within).map((one) => one.slope));
    const crossing = sum(feet.filter((one) => Math.log(one.slope / middle) > 1.5 * ONE_FOOT));
    const trust = sum(ends) - CROSSING * crossing;
    if (trust < Math.max(TRUST, best?.trust ?? 0)) continue;
    if (settledSlope(own, span, middle, seen.cover)) best = { trust, span, slope: middle };
  }
  if (!best) return undefined;
  const { trust, span, slope } = best;
  const foot = footUnderBand(own, span, slope, seen) ?? settledFoot(own, span, slope, seen.cover);
  return foot && { foot, trust };
}

/** The slope of a foot over a span, or one farther down; undefined where no ground begins under it. */
function settledSlope(own: Side, span: Span, slope: number, cover: SeenCover): number | undefined {
  const first = footOf(own, span, slope);
  return first && settleFoot(own, first, slope, cover);
}

/** The foot over a span on a slope, or farther down, where the wall's tone ends; undefined where no ground begins under it. */
function settledFoot(own: Side, span: Span, slope: number, cover: SeenCover) {
  const settled = settledSlope(own, span, slope, cover);
  const [left, right] = footOf(own, span, slope) ?? [];
  if (settled === undefined || !left || !right) return undefined;
  return footOf(own, span, toneFoot(own, { from: left.u, to: right.u }, settled, cover) ?? settled);
}

/** The foot of a wall of which only a band ends on a slope. */
function footUnderBand(own: Side, span: Span, slope: number, { lows, tones, meeting, cover }: SeenPlate) {
  const low = lowerFoot(own, lows, slope);
  if (low === undefined || !isUprightBetween(uprightShares(own, tones, span, meeting), slope, low))
    return undefined;
  return settledFoot(own, span, low, cover);
}

/** At how many places apart uprights end within a span. */
const placesWithin = (ends: readonly { u: number }[], { from, to }: Span): number =>
  placesApart(
    ends.map(({ u }) => u).filter((u) => u >= from && u <= to),
    Math.max(ENDS.apart, ENDS.share * (to - from)),
  );

/** The foot of a wall over a span; undefined where too little of it lies in the picture. */
function footOf(own: Side, { from, to }: Span, slope: number): [PlatePoint, PlatePoint] | undefined {
  const { place, side } = own;
  // Where it is clear of the horizon, and of where it runs to.
  const away = Math.max(AWAY, UNDER / slope);
  const [left, right] =
    side < 0
      ? [from < BORDER ? 0 : from, Math.min(to, place.u - away)]
      : [Math.max(from, place.u + away), to > 1 - BORDER ? 1 : to];
  if (right - left < SHORTEST) return undefined;
  return [onSlope(own, left, slope), onSlope(own, right, slope)];
}

/** Share of a wall's columns that another has too. */
function shared({ foot: [a, b] }: GuessedWall, { foot: [c, d] }: GuessedWall): number {
  return Math.max(0, Math.min(b.u, d.u) - Math.max(a.u, c.u)) / (b.u - a.u);
}
