import { sineToward, type PlateEdge } from './plate-edges';

/**
 * Directions that are looked for at once, and what edges count that run toward the first, second and third of them: few directions tell more
 * than many, as any two lines meet on every horizon.
 */
const COUNTS = [1, 0.75, 0.55] as const;

/** Bins of places along the horizon, by the angle under which they are seen with a focal length of so many widths. */
export const BINS = { count: 240, focal: 0.75, apart: 8 } as const;

/** How exact the direction of an edge is: radians at least, and widths over its length. */
const EXACT = { angle: 0.006, ends: 0.0007 } as const;

/** Sine at which an edge counts three fifths toward a place, in the last search; how far a horizon may turn from what uprights say. */
export const FINE = { toward: 0.008, turn: { told: 0.008, untold: 0.02 } } as const;

/** Edges that lie nearer to the horizon say nothing of it, widths. */
const ON_HORIZON = 0.015;

/** Horizons that are looked at finely, and how far they lie apart, widths. */
const REFINED = { most: 5, apart: 0.012 } as const;

/** A horizon `y = -height - lean x`, in widths from the plate's middle, and angles of places on it. */
export interface Guess {
  height: number;
  lean: number;
  places: number[];
}

/** A guess, and how well edges agree with it. */
export interface Tried {
  score: number;
  guess: Guess;
}

/** A place on a horizon, homogeneous, by its angle. */
function placeAt({ height, lean }: Pick<Guess, 'height' | 'lean'>, angle: number): [number, number, number] {
  const [x, w] = [BINS.focal * Math.sin(angle), Math.cos(angle)];
  return [x, -height * w - lean * x, w];
}

/** The best of some horizons, each apart from those before it. */
export function apart(tried: readonly Tried[]): Tried[] {
  const kept: Tried[] = [];
  for (const one of tried) {
    if (kept.length === REFINED.most) break;
    if (kept.every(({ guess }) => Math.abs(guess.height - one.guess.height) > REFINED.apart)) kept.push(one);
  }
  return kept;
}

/** Where edges meet a horizon: its few places where most do, and how much of their length does. */
export function meetHorizon(edges: readonly PlateEdge[], height: number, lean: number): Tried {
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
export function agreement(edges: readonly PlateEdge[], guess: Guess): number {
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
export function refine(edges: readonly PlateEdge[], start: Guess, lean: number, turn: number) {
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
