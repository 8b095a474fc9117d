import { median } from '../plane/median';
import { horizonAt } from '../geometry/ground';
import { footOfBox, type ThingBox } from './guess-things';
import { THING_KINDS } from './thing-kinds';

/** A foot lies this far under the horizon at least, fraction of the height: nearer to it a row is many metres. */
const UNDER = 0.04;

/** Things of which the height is known that must be seen. */
const LEAST = 2;

/** Their middle half agrees within this ratio: else nothing is said. */
const AGREE = 1.35;

/** A foot, or a top, so near to an edge of the picture may be cut by it. */
const EDGE = 0.01;

/**
 * The eye height by things of which the height is known, metres: what stands at a foot is as many times as high as the eye as its top
 * is farther from its foot than the horizon is. Undefined where too few are seen, or they do not agree.
 */
export function guessEyeHeight(
  boxes: readonly ThingBox[],
  horizon: { left: number; right: number },
): number | undefined {
  const told = boxes.flatMap((box) => {
    const { is, top, foot } = box;
    const usual = is && THING_KINDS[is].usual;
    const level = horizonAt(horizon, footOfBox(box).u);
    if (!usual || foot < level + UNDER || foot > 1 - EDGE || top < EDGE) return [];
    return [(usual * (foot - level)) / (foot - top)];
  });
  if (told.length < LEAST) return undefined;
  const sorted = told.sort((a, b) => a - b);
  const quarter = Math.floor(sorted.length / 4);
  return sorted[sorted.length - 1 - quarter] < AGREE * sorted[quarter] ? median(sorted) : undefined;
}
