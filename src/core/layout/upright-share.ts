import { horizonAt } from '../geometry/ground';
import { median } from '../plane/median';
import type { Plane } from '../plane/plane';
import { sineToward } from './plate-edges';
import type { Uprights } from './upright-edges';
import { AWAY, slopeOf, type Side } from './wall-side';
import { hypot } from '../plane/hypot';

/** Slopes under the horizon in even steps of their logarithm. */
const SLOPES = { least: 0.03, ratio: 1.09, count: 52 } as const;

/** Parts of a span that are looked at each for itself, and how many must tell. */
const PARTS = { count: 16, least: 4 } as const;

/** Steps of tone that count, codes, and how much of them a part must hold. */
const EDGE = { codes: 2, sum: 40 } as const;

/** Sine up to which an edge runs upright, or along the wall. */
const ALONG = 0.2;

/** How far a foot's slope is looked above and below, in steps; how many of them must tell. */
const REACH = { steps: 6, least: 3 } as const;

/** Over a foot so much of what crosses it is upright at least, so many times as much as below it. */
const WALL = { least: 0.12, times: 1.7, below: 0.17 } as const;

const slopeAt = (step: number): number => SLOPES.least * SLOPES.ratio ** step;

/**
 * How much of what crosses a wall's direction is upright, by slope under the horizon: on walls there are joints, doors
 * and pipes, on the ground hardly anything is. The median over parts of a span, so that what stands before it tells little.
 *
 * @param plate one channel, codes
 * @param uprights where upright edges meet
 * @returns one share a step of slope, NaN where too little is seen
 */
export function uprightShares(
  own: Side,
  plate: Plane,
  span: { from: number; to: number },
  uprights: Pick<Uprights, 'lean' | 'along'>,
): number[] {
  const { width, height, data } = plate;
  const { place, side, horizon, aspect } = own;
  const all = new Float64Array(SLOPES.count * PARTS.count);
  const upright = new Float64Array(SLOPES.count * PARTS.count);
  const [toX, toY] = [place.u - 0.5, (horizonAt(horizon, place.u) - 0.5) / aspect];
  for (let y = 1; y < height - 1; y++) {
    for (let x = 1; x < width - 1; x++) {
      const [u, v] = [(x + 0.5) / width, (y + 0.5) / height];
      if (u < span.from || u >= span.to || (u - place.u) * side < 2 * AWAY) continue;
      const step = Math.floor(Math.log(slopeOf(own, { u, v }) / SLOPES.least) / Math.log(SLOPES.ratio));
      if (!(step >= 0 && step < SLOPES.count)) continue;
      const i = y * width + x;
      const [gx, gy] = [(data[i + 1] - data[i - 1]) / 2, (data[i + width] - data[i - width]) / 2];
      const size = hypot(gx, gy);
      if (size < EDGE.codes) continue;
      // Its edge runs across the way its tone steps.
      const edge = { x: u - 0.5, y: (v - 0.5) / aspect, dx: -gy / size, dy: gx / size, length: size };
      if (sineToward(edge, toX, toY, 1) < ALONG) continue;
      const part = Math.floor(((u - span.from) / (span.to - span.from)) * PARTS.count);
      all[step * PARTS.count + part] += size;
      if (sineToward(edge, uprights.lean, 1, uprights.along) < ALONG) {
        upright[step * PARTS.count + part] += size;
      }
    }
  }
  return Array.from({ length: SLOPES.count }, (_, step) => {
    const shares: number[] = [];
    for (let k = step * PARTS.count; k < (step + 1) * PARTS.count; k++) {
      if (all[k] > EDGE.sum) shares.push(upright[k] / all[k]);
    }
    return shares.length < PARTS.least ? NaN : median(shares);
  });
}

/** Where upright edges may give way to what lies level: slopes, and by how much, the most first. */
export function whereUprightsEnd(shares: readonly number[]): { slope: number; drop: number }[] {
  const drops = shares.map((_, k) => {
    const [above, below] = [meanTold(shares, k - REACH.steps, k), meanTold(shares, k, k + REACH.steps)];
    return above >= WALL.least && below <= WALL.below && above >= WALL.times * below ? above - below : 0;
  });
  return drops
    .flatMap((drop, k) => {
      const near = drops.slice(Math.max(0, k - REACH.least), k + REACH.least + 1);
      return drop > 0 && drop === Math.max(...near) ? [{ slope: slopeAt(k), drop }] : [];
    })
    .sort((a, b) => b.drop - a.drop);
}

/** Whether all that lies between two slopes is upright as walls are, and what lies below is not. */
export function isUprightBetween(shares: readonly number[], upper: number, lower: number): boolean {
  const [from, to] = [upper, lower].map((slope) => Math.log(slope / SLOPES.least) / Math.log(SLOPES.ratio));
  const between = meanTold(shares, Math.ceil(from) + 1, Math.floor(to));
  const below = meanTold(shares, Math.ceil(to) + 1, Math.ceil(to) + 1 + REACH.steps);
  return between > WALL.below && !(below > between / WALL.times);
}

/** Mean of what is told of some steps; NaN where it is too little. */
function meanTold(shares: readonly number[], from: number, to: number): number {
  const told = shares.slice(Math.max(0, from), Math.max(0, to)).filter((share) => !Number.isNaN(share));
  return told.length < REACH.least ? NaN : told.reduce((sum, share) => sum + share, 0) / told.length;
}
