import type { Fit } from '@/core/fixture/twin-fit';
import type { Alike } from '@/core/fixture/twins';
import type { PlatePoint } from '@/core/geometry/camera';
import { lampGlass, rimOf } from '@/core/layout/lamp-glass';
import { hypot } from '@/core/plane/hypot';
import type { Plane } from '@/core/plane/plane';
import { beyondChance } from './by-chance';
import { fittingRows } from './fitting-rows';

/** Sizes that are tried against the lamp's, from the smallest, each so much larger than the one before. */
const SCALES = { from: 0.3, to: 2.6, step: 1.12 } as const;

/** Least radius of a disc, pixels, and steps in which it is sought, radii. */
const DISC = { least: 2.6, step: 0.25 } as const;

/** Rim that must be seen, of the lamp's own; most places a scale; and how many of them may be by chance. */
const PEAKS = { least: 0.78, most: 60 } as const;
const MOST_BY_CHANCE = 0.02;

/** How far beside where one may be is looked, of the rows between. */
const BESIDE = 0.5;

/** How much lighter or darker than the lamp's glass a disc may be, codes. */
const TONE = 50;

/** How far its size may be from the one that was tried, factor. */
const EXACT = 1.15;

/** Mean code of a disc. */
function toneOf({ width, height, data }: Plane, x: number, y: number, radius: number): number {
  let [sum, count] = [0, 0];
  const reach = 0.7 * radius;
  for (let row = Math.max(0, Math.ceil(y - reach)); row <= Math.min(height - 1, y + reach); row++) {
    for (let column = Math.max(0, Math.ceil(x - reach)); column <= Math.min(width - 1, x + reach); column++) {
      if ((column - x) ** 2 + (row - y) ** 2 > reach * reach) continue;
      sum += data[row * width + column];
      count++;
    }
  }
  return sum / Math.max(1, count);
}

/** Where the glass near a place is, and how large against the lamp's own, if it is about as large as it should be. */
function exactly(plate: Plane, at: PlatePoint, own: number, times: number): Pick<Alike, 'at' | 'times'> {
  const glass = lampGlass(plate, at);
  if (!glass?.isDisc) return { at, times };
  const size = (glass.radius * plate.width) / own;
  return Math.abs(Math.log(size / times)) < Math.log(EXACT) ? { at: glass.at, times: size } : { at, times };
}

/**
 * Discs that may be twins of a round lamp by the ground plan, whatever lies behind them: their rims are seen all around. None where the lamp's
 * own is not.
 *
 * @param plate one channel, in codes
 */
export function findDiscs(plate: Plane, at: PlatePoint, fits: Fit): Alike[] {
  const glass = lampGlass(plate, at);
  if (!glass?.isDisc) return [];
  const { width, height } = plate;
  const [cx, cy, own] = [glass.at.u * width - 0.5, glass.at.v * height - 0.5, glass.radius * width];
  const rim = rimOf(plate, cx, cy, own);
  const tone = toneOf(plate, cx, cy, own);
  const found: Alike[] = [];
  for (let times: number = SCALES.from; times <= SCALES.to; times *= SCALES.step) {
    const radius = own * times;
    if (radius < DISC.least) continue;
    const rows = fittingRows(fits, times, height);
    if (rows.from > rows.to) continue;
    const step = Math.max(1, Math.round(DISC.step * radius));
    const beside = Math.max(2 * radius, BESIDE * (rows.to - rows.from));
    const [top, bottom] = [Math.max(0, rows.from - beside), Math.min(height, rows.to + beside)];
    const [columns, count] = [Math.floor(width / step), Math.max(0, Math.floor((bottom - top) / step))];
    const placeOf = (k: number, j: number) => [k * step, top + j * step] as const;
    const seen = Float32Array.from({ length: columns * count }, (_, i) => {
      const [x, y] = placeOf(i % columns, Math.floor(i / columns));
      return rimOf(plate, x, y, radius) / Math.max(1, rim);
    });
    const plateAt = (k: number, j: number) => {
      const [x, y] = placeOf(k, j);
      return { u: (x + 0.5) / width, v: (y + 0.5) / height };
    };
    const tell = {
      mayBe: (k: number, j: number) => fits(plateAt(k, j), times),
      isOther: (k: number, j: number) => hypot(placeOf(k, j)[0] - cx, placeOf(k, j)[1] - cy) > 2 * own,
      isAlike: ({ x, y }: { x: number; y: number }) =>
        Math.abs(toneOf(plate, ...placeOf(x, y), radius) - tone) < TONE,
    };
    const limits = { ...PEAKS, apart: Math.max(1, radius / step) };
    for (const { x, y, score } of beyondChance(seen, columns, limits, tell, MOST_BY_CHANCE)) {
      found.push({ ...exactly(plate, plateAt(x, y), own, times), score });
    }
  }
  return found;
}
