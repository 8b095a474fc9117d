import type { PlateLine } from '../geometry/vanishing-point';
import { plateEdges, sineToward, type PlateEdge } from './plate-edges';
import { median } from '../plane/median';
import { guessLens } from './guess-lens';
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
 * Directions that are looked for at once, and what edges count that run toward the first, second and third of them: few directions tell more
 * than many, as any two lines meet on every horizon.
 */
const COUNTS = [1, 0.75, 0.55] as const;

/** Bins of places along the horizon, by the angle under which they are seen with a focal length of so many widths. */
const BINS = { count: 240, focal: 0.75, apart: 8 } as const;

/** How exact the direction of an edge is: radians at least, and widths over its length. */
const EXACT = { angle: 0.006, ends: 0.0007 } as const;

/** Sine at which an edge counts three fifths toward a place, in the last search; how far a horizon may turn from what uprights say. */
const FINE = { toward: 0.008, turn: { told: 0.008, untold: 0.02 } } as const;

/** Edges that lie nearer to the horizon say nothing of it, widths. */
const ON_HORIZON = 0.015;

/**
 * How much more edges must agree with a horizon than with most others; how much of their length, widths of the plate; and what share of it:
 * among edges that mean nothing a tenth agrees with some horizon by chance.
 */
const TRUST = { times: 1.35, length: 0.6, share: 0.2 } as const;

/** Horizons that are looked at finely, and how far they lie apart, widths. */
const REFINED = { most: 5, apart: 0.012 } as const;

/** Places whose angles are nearer are one; sine. */
const ONE_DIRECTION = 0.06;

/** A horizon `y = -height - lean x`, in widths from the plate's middle, and angles of places on it. */
interface Guess {
  height: number;
  lean: number;
  places: number[];
}

/** A guess, and how well edges agree with it. */
interface Tried {
  score: number;
  guess: Guess;
}

/** A place on a horizon, homogeneous, by its angle. */
function placeAt({ height, lean }: Pick<Guess, 'height' | 'lean'>, angle: number): [number, number, number] {
  const [x, w] = [BINS.focal * Math.sin(angle), Math.cos(angle)];
  return [x, -height * w - lean * x, w];
}

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
  const tried: Tried[] = [];
  for (let v = WITHIN.least; v <= WITHIN.most; v += WITHIN.step) {
    tried.push(meetHorizon(level, -(v - 0.5) / aspect, lean));
  }
  tried.sort((a, b) => b.score - a.score);
  if (!(tried[0].score > 0)) return undefined;
  const turn = uprights ? FINE.turn.told : FINE.turn.untold;
  const found = apart(tried)
    .map(({ guess }) => refine(level, guess, lean, turn))
    .sort((a, b) => b.score - a.score)[0];
  const others = median(tried.map(({ guess }) => agreement(level, guess)));
  const trust = found.score / Math.max(1e-9, others);
  const { height, lean: turned, places } = found.guess;
  const at = (x: number) => 0.5 + (-height - turned * x) * aspect;
  const horizon = { left: at(-0.5), right: at(0.5) };
  const middle = (horizon.left + horizon.right) / 2;
  const all = level.reduce((sum, { length }) => sum + length, 0);
  const isSure = trust >= TRUST.times && found.score >= Math.max(TRUST.length, TRUST.share * all);
  if (!isSure || middle < WITHIN.least || middle > WITHIN.most) return undefined;
  const beyond = refine(level, bestBeyond(level, aspect, lean), lean, turn);
  if (BEYOND.surer * found.score < beyond.score) return undefined;
  const kept = places.filter((angle, k) =>
    places.slice(0, k).every((other) => Math.abs(Math.sin(angle - other)) > ONE_DIRECTION),
  );
  const meetings = kept
    .map((angle) => ({
      x: BINS.focal * Math.tan(angle),
      share: agreement(level, { ...found.guess, places: [angle] }) / all,
    }))
    .sort((a, b) => b.share - a.share);
  return {
    ...{ horizon, uprights },
    level: meetings.map(({ x, share }) => ({ u: 0.5 + x, share })),
    lens: guessLens(height, meetings, uprights, BINS.focal),
  };
}

/** The best of some horizons, each apart from those before it. */
function apart(tried: readonly Tried[]): Tried[] {
  const kept: Tried[] = [];
  for (const one of tried) {
    if (kept.length === REFINED.most) break;
    if (kept.every(({ guess }) => Math.abs(guess.height - one.guess.height) > REFINED.apart)) kept.push(one);
  }
  return kept;
}

/** The best horizon that lies where none is told. */
function bestBeyond(level: readonly PlateEdge[], aspect: number, lean: number): Guess {
  const tried: Tried[] = [];
  for (let v = BEYOND.least; v <= BEYOND.most; v += BEYOND.step) {
    if (v < WITHIN.least || v > WITHIN.most) tried.push(meetHorizon(level, -(v - 0.5) / aspect, lean));
  }
  return tried.reduce((best, one) => (one.score > best.score ? one : best)).guess;
}

/** Where edges meet a horizon: its few places where most do, and how much of their length does. */
function meetHorizon(edges: readonly PlateEdge[], height: number, lean: number): Tried {
  const { count, focal } = BINS;
  const bins = new Float64Array(count);
  for (const { x, y, dx, dy, length } of edges) {
    const over = lean * x + y + height;
    if (Math.abs(over) < ON_HORIZON) continue;
    const slope = lean * dx + dy;
    const along = -over / (Math.abs(slope) < 1e-6 ? 1e-6 : slope);
    const meets = x + along * dx;
    const angle = Math.atan(meets / focal);
    const error = (Math.abs(along) * (EXACT.angle + EXACT.ends / length)) / Math.max(0.02, Math.abs(slope));
    const spread = Math.max(1, ((error * Math.cos(angle) ** 2) / focal / Math.PI) * count);
    const middle = (angle / Math.PI + 0.5) * count;
    const reach = Math.min(count / 4, Math.ceil(2 * spread));
    for (let k = -reach; k <= reach; k++) {
      const bin = (((Math.floor(middle) + k) % count) + count) % count;
      bins[bin] += (length / spread) * Math.exp(-0.5 * (k / spread) ** 2);
    }
  }
  const places: number[] = [];
  let score = 0;
  for (const counts of COUNTS) {
    const best = bins.indexOf(Math.max(...bins));
    if (bins[best] <= 0) break;
    score += counts * bins[best];
    places.push(((best + 0.5) / count - 0.5) * Math.PI);
    for (let k = -BINS.apart; k <= BINS.apart; k++) bins[(best + k + count) % count] = 0;
  }
  return { score, guess: { height, lean, places } };
}

/** How much of the edges' length runs toward the places of a guess, or nearly. */
function agreement(edges: readonly PlateEdge[], guess: Guess): number {
  const places = guess.places.map((angle) => placeAt(guess, angle));
  const sums = places.map(() => 0);
  for (const edge of edges) {
    if (Math.abs(guess.lean * edge.x + edge.y + guess.height) < ON_HORIZON) continue;
    let [least, nearest] = [1, 0];
    places.forEach(([x, y, w], k) => {
      const off = sineToward(edge, x, y, w);
      if (off < least) [least, nearest] = [off, k];
    });
    sums[nearest] += edge.length * Math.exp(-0.5 * (least / FINE.toward) ** 2);
  }
  return sums.sort((a, b) => b - a).reduce((all, sum, k) => all + COUNTS[k] * sum, 0);
}

/** Moves a guess, one number at a time and ever finer, to where most edges agree with it. */
function refine(edges: readonly PlateEdge[], start: Guess, lean: number, turn: number) {
  const value = (guess: Guess) =>
    agreement(edges, guess) * Math.exp(-0.5 * ((guess.lean - lean) / turn) ** 2);
  let guess = start;
  let score = value(guess);
  const moves = (step: number): Guess[] =>
    [step, -step].flatMap((by) => [
      { ...guess, height: guess.height + by },
      { ...guess, lean: guess.lean + by },
      ...guess.places.map((_, k) => ({
        ...guess,
        places: guess.places.map((angle, j) => (j === k ? angle + 2 * by : angle)),
      })),
    ]);
  for (let step = 0.008; step > 0.0003; step /= 2) {
    for (let round = 0; round < 6; round++) {
      const before = score;
      for (const next of moves(step)) {
        const found = value(next);
        if (found > score) [score, guess] = [found, next];
      }
      if (score === before) break;
    }
  }
  return { score, guess };
}
