import type { PlateLine } from '../geometry/vanishing-point';
import { FRAME_WIDTH_MM } from '../geometry/camera';
import { median } from '../plane/median';
import { guessLens } from './guess-lens';
import { agreement, apart, BINS, FINE, meetHorizon, refine, type Guess, type Tried } from './horizon-search';
import { plateEdges, sineToward, type PlateEdge } from './plate-edges';
import { meetingUprights, TOWARD_UPRIGHT, type Uprights } from './upright-edges';

/** What straight edges say of how a plate was taken. */
export interface Perspective {
  horizon: { left: number; right: number };
  /** Places on the horizon toward which level edges run, fractions of the width, the one with most edges first. */
  level: VanishingPlace[];
  /** 35 mm equivalent, where edges tell it. */
  lens?: number;
  /** Where upright edges meet, where enough do. */
  uprights?: Uprights;
}

export interface VanishingPlace {
  u: number;
  /** Share of the length of all level edges that run toward it. */
  share: number;
}

/** Where a horizon is looked for, fractions of the height, in steps of so much. */
const WITHIN = { least: 0.08, most: 0.92, step: 0.005 } as const;

/** Where else one may lie, outside of the picture or near its edge: then none is told, if edges agree so much less with one within. */
const BEYOND = { least: -0.6, most: 1.6, step: 0.02, surer: 1.05 } as const;

/**
 * Edges that run this nearly along the horizon, sine, meet it so far away that any height of it fits them: they say how it is turned, not how
 * high it lies.
 */
const ALONG_HORIZON = 0.04;

/**
 * How much more edges must agree with a horizon than with most others; how much of their length, widths of the plate; and what share of it:
 * among edges that mean nothing a tenth agrees with some horizon by chance. Less is enough where it is as usual.
 */
const TRUST = { times: 1.35, length: 0.6, share: { any: 0.2, usual: 0.13 } } as const;

/** Lenses of most photos, millimetres, and how exactly they tell a horizon, widths. */
const USUAL = { focal: { least: 23, most: 40 }, error: 0.015 } as const;

/** How far edges along the horizon may move it, widths. */
const STAYS = 0.012;

/** Places whose angles are nearer are one; sine. */
const ONE_DIRECTION = 0.06;

/**
 * The horizon, with its turn, that most straight edges agree with: each candidate is met by all edges, and that is the best on which the
 * places where they meet it are few (horizon first, after Zhai, Workman and Jacobs 2016). Undefined where none stands out.
 *
 * @param aspect width of the plate over its height
 */
export function guessPerspective(lines: readonly PlateLine[], aspect: number): Perspective | undefined {
  const edges = plateEdges(lines, aspect);
  const uprights = meetingUprights(edges);
  const lean = uprights?.lean ?? 0;
  const level = edges.filter(
    (edge) => !(uprights && sineToward(edge, lean, 1, uprights.along) < TOWARD_UPRIGHT),
  );
  const found = sureHorizon(level, uprights, aspect);
  if (!found) return undefined;
  const { height, lean: turned, places } = found;
  const at = (x: number) => 0.5 + (-height - turned * x) * aspect;
  const all = lengthOf(level);
  const kept = places.filter((angle, k) =>
    places.slice(0, k).every((other) => Math.abs(Math.sin(angle - other)) > ONE_DIRECTION),
  );
  const meetings = kept
    .map((angle) => ({
      x: BINS.focal * Math.tan(angle),
      share: agreement(level, { ...found, places: [angle] }) / all,
    }))
    .sort((a, b) => b.share - a.share);
  return {
    ...{ horizon: { left: at(-0.5), right: at(0.5) }, uprights },
    level: meetings.map(({ x, share }) => ({ u: 0.5 + x, share })),
    lens: guessLens(height, meetings, uprights, BINS.focal),
  };
}

const lengthOf = (edges: readonly PlateEdge[]) => edges.reduce((sum, { length }) => sum + length, 0);

/** The horizon that level edges tell, if they do. */
function sureHorizon(level: readonly PlateEdge[], uprights: Uprights | undefined, aspect: number) {
  const lean = uprights?.lean ?? 0;
  const turn = uprights ? FINE.turn.told : FINE.turn.untold;
  const slanted = level.filter(({ dx, dy }) => Math.abs(lean * dx + dy) > ALONG_HORIZON);
  const tried: Tried[] = [];
  for (let v = WITHIN.least; v <= WITHIN.most; v += WITHIN.step) {
    tried.push(meetHorizon(slanted, -(v - 0.5) / aspect, lean));
  }
  tried.sort((a, b) => b.score - a.score);
  if (!(tried[0].score > 0)) return undefined;
  const found = apart(tried)
    .map(({ guess }) => refine(slanted, guess, lean, turn))
    .sort((a, b) => b.score - a.score)[0];
  const others = median(tried.map(({ guess }) => agreement(slanted, guess)));
  const trust = found.score / Math.max(1e-9, others);
  const middle = 0.5 - found.guess.height * aspect;
  const share = isUsual(found.guess.height, uprights) ? TRUST.share.usual : TRUST.share.any;
  const isSure = trust >= TRUST.times && found.score >= Math.max(TRUST.length, share * lengthOf(slanted));
  if (!isSure || middle < WITHIN.least || middle > WITHIN.most) return undefined;
  const beyond = refine(slanted, bestBeyond(slanted, aspect, lean), lean, turn);
  if (BEYOND.surer * found.score < beyond.score) return undefined;
  // Edges along the horizon say how it is turned, and where walls run to that face the eye.
  const whole = apart(tried)
    .map(({ guess }) => refine(level, meetHorizon(level, guess.height, lean).guess, lean, turn))
    .filter(({ guess }) => Math.abs(guess.height - found.guess.height) < STAYS)
    .sort((a, b) => b.score - a.score);
  return whole[0]?.guess ?? found.guess;
}

/**
 * Whether a horizon lies where uprights and a usual lens have it: both lie square to each other, so its height is the lens squared times
 * `along` (Caprile and Torre 1990).
 */
function isUsual(height: number, uprights: Uprights | undefined): boolean {
  if (!uprights) return false;
  const { focal, error } = USUAL;
  const between = [focal.least, focal.most].map((mm) => (mm / FRAME_WIDTH_MM) ** 2 * uprights.along);
  return height > Math.min(...between) - error && height < Math.max(...between) + error;
}

/** The best horizon that lies where none is told. */
function bestBeyond(level: readonly PlateEdge[], aspect: number, lean: number): Guess {
  const tried: Tried[] = [];
  for (let v = BEYOND.least; v <= BEYOND.most; v += BEYOND.step) {
    if (v < WITHIN.least || v > WITHIN.most) tried.push(meetHorizon(level, -(v - 0.5) / aspect, lean));
  }
  return tried.reduce((best, one) => (one.score > best.score ? one : best)).guess;
}
