import type { UprightThing } from '@/core/layout/guess-posts';
import { median } from '@/core/plane/median';
import { flags, withMats, type OpenCv } from './opencv';
import type { Picture } from './picture';

/** Widest post, and the gap along it that is leapt, fractions of width and height. */
const POST = { widest: 0.03, gap: 0.006 } as const;

/** Lengths of a straight upright piece, fractions of the height: long ones first, since what is beside them is cut off. */
const LENGTHS = [0.2, 0.1, 0.045] as const;

/** The opening along a length is so much shorter than it: the ends of a post are ragged. */
const RAGGED = 0.7;

/** How many times as high as broad it is at least, and what share of its box it fills. */
const SLENDER = { times: 2.6, fills: 0.55 } as const;

/** Contrast against what is beside it from which it counts, codes. */
const CONTRAST = 28;

/**
 * Most of what is beside its lower part, in bands of its own breadth, that may stand out as it does: else it is texture.
 * What is longer than a share of the height is seldom any.
 */
const BUSY = { most: 0.3, mostLong: 0.6, lower: 0.3, under: 0.2 } as const;

/** How far its middle may stray from a straight upright line, and its breadth from the middle one, in its breadths. */
const STRAIGHT = { stray: 0.4, swell: 0.8 } as const;

/** Most things that are told. */
const MOST = 200;

/** Fewest pixels across. */
const LEAST_ACROSS = 3;

/**
 * Thin upright things of a picture: what is darker or lighter than all that lies beside it within the breadth of a post
 * (top-hat transforms, Meyer 1979), in one upright piece.
 */
export function uprightThings(cv: OpenCv, { width, height, rgb }: Picture): UprightThing[] {
  return withMats((keep) => {
    const mat = () => keep(new cv.Mat());
    const box = (across: number, down: number) =>
      keep(cv.getStructuringElement(flags(cv).MORPH_RECT, new cv.Size(across, down)));
    const color = keep(cv.matFromArray(height, width, flags(cv).CV_8UC3, rgb));
    const grey = mat();
    cv.cvtColor(color, grey, flags(cv).COLOR_RGB2GRAY);
    const found: UprightThing[] = [];
    const beside = box(2 * Math.round((POST.widest * width) / 2) + 1, 1);
    const gap = box(1, Math.max(3, Math.round(POST.gap * height)));
    const across = box(LEAST_ACROSS, 1);
    for (const hat of [flags(cv).MORPH_BLACKHAT, flags(cv).MORPH_TOPHAT]) {
      const [out, tall, labels, stats, middles] = [mat(), mat(), mat(), mat(), mat()];
      cv.morphologyEx(grey, out, hat, beside);
      cv.threshold(out, out, CONTRAST, 255, flags(cv).THRESH_BINARY);
      cv.morphologyEx(out, out, flags(cv).MORPH_CLOSE, gap);
      for (const length of LENGTHS) {
        cv.morphologyEx(out, tall, flags(cv).MORPH_OPEN, box(1, Math.round(RAGGED * length * height)));
        cv.morphologyEx(tall, tall, flags(cv).MORPH_OPEN, across);
        const count = cv.connectedComponentsWithStats(tall, labels, stats, middles);
        for (let k = 1; k < count && found.length < MOST; k++) {
          const [x, y, w, h, area] = stats.data32S.subarray(5 * k, 5 * k + 5);
          if (h < length * height || h < SLENDER.times * w || area < SLENDER.fills * w * h) continue;
          if (x === 0 || x + w === width) continue;
          const busy = busyBeside(out.data, width, { x, y, w, h });
          if (busy > (length < BUSY.under ? BUSY.most : BUSY.mostLong)) continue;
          const sides = sidesOf(labels.data32S, width, k, { x, y, w, h });
          if (!isStraight(sides)) continue;
          const around = [
            ...sides.map(({ left, y: v }) => [left, v]),
            ...sides.map(({ right, y: v }) => [right, v]).reverse(),
          ];
          found.push({ outline: around.map(([u, v]) => ({ u: u / width, v: v / height })) });
        }
      }
    }
    return found;
  });
}

interface Part {
  x: number;
  y: number;
  w: number;
  h: number;
}

/** The share of the bands beside the lower part of a part that stand out too. */
function busyBeside(data: Uint8Array, width: number, { x, y, w, h }: Part): number {
  let [busy, all] = [0, 0];
  for (let row = y + Math.floor((1 - BUSY.lower) * h); row < y + h; row++) {
    for (let away = 2; away < 2 + w; away++) {
      for (const column of [x - away, x + w - 1 + away]) {
        if (column < 0 || column >= width) continue;
        all++;
        if (data[row * width + column] > 0) busy++;
      }
    }
  }
  return all > 0 ? busy / all : 1;
}

/** Where a thing's sides run at a height, pixels. */
interface Sides {
  y: number;
  left: number;
  right: number;
}

/** In how many parts a thing's sides are looked at. */
const PARTS = 5;

/** Where a component's left and right sides run, from its top to its foot. */
function sidesOf(labels: Int32Array, width: number, label: number, { x, y, w, h }: Part): Sides[] {
  return Array.from({ length: PARTS + 1 }, (_, part) => {
    const row = Math.min(y + h - 1, y + Math.round((part * h) / PARTS));
    const line = labels.subarray(row * width + x, row * width + x + w);
    const [first, last] = [line.indexOf(label), line.lastIndexOf(label)];
    return { y: part === PARTS ? y + h : row, left: x + first, right: x + last + 1 };
  }).filter(({ left }) => left >= x);
}

/** Whether a thing runs straight and is about as broad all along. */
function isStraight(sides: readonly Sides[]): boolean {
  const middles = sides.map(({ left, right }) => (left + right) / 2);
  const breadths = sides.map(({ left, right }) => right - left);
  const breadth = median(breadths);
  const [from, to] = [middles[0], middles[middles.length - 1]];
  return sides.every(({ y }, i) => {
    const along = (y - sides[0].y) / (sides[sides.length - 1].y - sides[0].y);
    const stray = Math.abs(middles[i] - from - along * (to - from));
    return (
      stray <= STRAIGHT.stray * breadth + 1 && Math.abs(breadths[i] - breadth) <= STRAIGHT.swell * breadth + 1
    );
  });
}
