import { linearToOklab } from '../color/linear-to-oklab';
import { median } from '../plane/median';
import { distanceToTone, LIGHTNESS_WEIGHT, type Tone } from '../survey/ground-tones';
import type { SeenCover } from './settle-foot';
import { onSlope, type Side } from './wall-side';

/**
 * Slopes under the horizon that are looked at: from so far above a foot to so far below it, in even steps of their
 * logarithm; pixels of a strip a column at least.
 */
const LOOK = { above: 1.5, below: 6, ratio: 1.06, least: 0.5 } as const;

/** Strips over and under a slope that are compared, in steps. */
const STRIP = 5;

/**
 * A foot lies on a step of tone. One without moves down to a step of so much, weighed Oklab, that is so many times that on the foot; all
 * between is nearer to the wall over it than this share of the step.
 */
const STEP = { on: 0.012, least: 0.018, times: 2, between: 0.65 } as const;

/** The middle tones of strips along a foot, one a step of slope, down to where too little of one is seen. */
function strips(
  own: Side,
  { from, to }: { from: number; to: number },
  slopes: readonly number[],
  { width, height, plate }: SeenCover,
): Tone[] {
  const half = Math.sqrt(LOOK.ratio);
  const tones: Tone[] = [];
  for (const slope of slopes) {
    const seen: number[][] = [[], [], []];
    for (let x = Math.floor(Math.max(0, from) * width); x < Math.min(width, to * width); x++) {
      const u = (x + 0.5) / width;
      const first = Math.max(0, Math.round(onSlope(own, u, slope / half).v * height));
      const last = Math.min(
        height,
        Math.max(first + 1, Math.round(onSlope(own, u, slope * half).v * height)),
      );
      for (let i = first * width + x; i < last * width; i += width)
        linearToOklab([plate.r[i], plate.g[i], plate.b[i]]).forEach((value, c) => seen[c].push(value));
    }
    if (seen[0].length < LOOK.least * (to - from) * width) break;
    tones.push([LIGHTNESS_WEIGHT * median(seen[0]), median(seen[1]), median(seen[2])]);
  }
  return tones;
}

const meanTone = (tones: readonly Tone[]): Tone => {
  const mean = (c: number) => tones.reduce((sum, tone) => sum + tone[c], 0) / tones.length;
  return [mean(0), mean(1), mean(2)];
};

/** How far the tones over and under each strip are apart; 0 where too few lie on a side. */
const stepsOf = (tones: readonly Tone[]): number[] =>
  tones.map((_, k) =>
    k < STRIP || k + STRIP > tones.length
      ? 0
      : distanceToTone(meanTone(tones.slice(k - STRIP, k)), meanTone(tones.slice(k, k + STRIP))),
  );

/**
 * The slope farther down at which a wall's tone ends, where it plainly goes on below a foot that was found: on a row of sills uprights end too,
 * but the wall under them is as the wall over them. Undefined where the foot lies on a step of tone itself, or no wall ends below.
 */
export function toneFoot(
  own: Side,
  span: { from: number; to: number },
  slope: number,
  cover: SeenCover,
): number | undefined {
  const stepsTo = (times: number) => Math.round(Math.log(times) / Math.log(LOOK.ratio));
  const foot = stepsTo(LOOK.above);
  const slopes = Array.from(
    { length: foot + stepsTo(LOOK.below) + 1 },
    (_, k) => slope * LOOK.ratio ** (k - foot),
  );
  const tones = strips(own, span, slopes, cover);
  const steps = stepsOf(tones);
  const onFoot = Math.max(...steps.slice(foot - 1, foot + 2));
  const most = Math.max(0, ...steps.slice(foot + STRIP));
  const end = steps.lastIndexOf(most);
  if (onFoot > STEP.on || most < Math.max(STEP.least, STEP.times * onFoot)) return undefined;
  const over = meanTone(tones.slice(0, foot));
  const isWall = (tone: Tone) => distanceToTone(tone, over) < STEP.between * most;
  return tones.slice(foot, end - 1).every(isWall) ? Math.sqrt(slopes[end - 1] * slopes[end]) : undefined;
}
