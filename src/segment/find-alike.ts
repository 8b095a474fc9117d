import type { Fit } from '@/core/fixture/twin-fit';
import type { Alike } from '@/core/fixture/twins';
import type { PlatePoint } from '@/core/geometry/camera';
import { beyondChance, type Peak } from './by-chance';
import { fittingRows } from './fitting-rows';
import { flags, withMats, type OpenCv } from './opencv';
import type { Box, Picture } from './picture';
import { hypot } from '@/core/plane/hypot';

/** What is looked for: the part of the plate around a place, half its sides as fractions of width and height. */
export interface Sample {
  at: PlatePoint;
  half: PlatePoint;
  /** Of a lamp, half the sides of its glass: only the glass and a ring around it count. */
  glass?: PlatePoint;
}

/** Sizes that are tried against the sample's, from the smallest, each so much larger than the one before. */
const SCALES = { from: 0.36, to: 2.4, step: 1.16 } as const;

/** Least side of a sample at a scale, pixels. */
const SMALLEST = 7;

/** Likeness from which a place counts, and most places a scale. */
const PEAKS = { least: 0.48, most: 60 } as const;

/** How far above and below where a twin may be it is seen what is as alike by chance, of the rows between, and how many that may be. */
const BESIDE = 0.5;
const MOST_BY_CHANCE = 0.1;

/** Contrast under which a sample shows nothing, codes. */
const PLAIN = 4;

/** Least contrast of a place against the sample's: what is plain is like anything. */
const LEAST_CONTRAST = 0.4;

/** Of a lamp that is found by its glass: least likeness of all that is around it too, -1 to 1. */
const AROUND = 0.4;

/** How far around a lamp's glass its looks count, glass radii. */
const RING = 1.5;

/** Of a lamp's glass and the ring around it, glass radii: which parts are held against each other, and how alike they must be. */
const GLASS = { inside: 0.8, from: 1.15, step: 0.3, tone: 120 } as const;

type Tone = readonly [r: number, g: number, b: number];

/** Places of a picture that look like a part of it, at any size at which they fit (normalised correlation, per scale). */
export function findAlike(
  cv: OpenCv,
  whole: Picture,
  { at, half, glass }: Sample,
  fits: Fit = () => true,
): Alike[] {
  const { width, height, rgb } = whole;
  const x0 = Math.max(0, Math.floor((at.u - half.u) * width));
  const y0 = Math.max(0, Math.floor((at.v - half.v) * height));
  const across = Math.min(width, Math.ceil((at.u + half.u) * width)) - x0;
  const down = Math.min(height, Math.ceil((at.v + half.v) * height)) - y0;
  if (across < SMALLEST || down < SMALLEST) return [];
  // The sample may be cut by the picture's edge: its own middle against the place.
  const off = { x: at.u * width - x0, y: at.v * height - y0 };
  const own = contrast(rgb, width, { x: x0, y: y0, width: across, height: down });
  if (own < PLAIN) return [];
  const looksLike = glass ? likeGlass(whole, at, glass) : () => true;
  return withMats((keep) => {
    const picture = keep(cv.matFromArray(height, width, flags(cv).CV_8UC3, rgb));
    const sample = keep(picture.roi({ x: x0, y: y0, width: across, height: down }));
    const found: Alike[] = [];
    for (let times: number = SCALES.from; times <= SCALES.to; times *= SCALES.step) {
      const size = { width: Math.round(across * times), height: Math.round(down * times) };
      if (Math.min(size.width, size.height) < SMALLEST) continue;
      const rows = fittingRows(fits, times, height);
      if (rows.from > rows.to) continue;
      const beside = Math.max(size.height, BESIDE * (rows.to - rows.from));
      const top = Math.max(0, Math.floor(rows.from - beside - off.y * times));
      const bottom = Math.min(height, Math.ceil(rows.to + beside - off.y * times) + size.height);
      if (size.width >= width || size.height >= bottom - top) continue;
      const band = keep(picture.roi({ x: 0, y: top, width, height: bottom - top }));
      const [scaled, likeness] = [keep(new cv.Mat()), keep(new cv.Mat())];
      cv.resize(sample, scaled, size, 0, 0, flags(cv)[times < 1 ? 'INTER_AREA' : 'INTER_LINEAR']);
      const mask =
        glass && keep(glassMask(cv, size, off, times, { u: glass.u * width, v: glass.v * height }));
      if (mask) cv.matchTemplate(band, scaled, likeness, flags(cv).TM_CCOEFF_NORMED, mask);
      else cv.matchTemplate(band, scaled, likeness, flags(cv).TM_CCOEFF_NORMED);
      const placeOf = (x: number, y: number) => ({
        u: (x + off.x * times) / width,
        v: (y + top + off.y * times) / height,
      });
      const mayBe = (x: number, y: number) => fits(placeOf(x, y), times);
      const isAlike = ({ x, y }: Peak) => {
        if (contrast(rgb, width, { x, y: y + top, ...size }) < LEAST_CONTRAST * own) return false;
        const place = placeOf(x, y);
        return looksLike(place, times) && !(glass && likenessAround(whole, at, place, times, half) < AROUND);
      };
      const isOther = (x: number, y: number) =>
        hypot(x + off.x * times - at.u * width, y + top + off.y * times - at.v * height) >
        Math.max(size.width, across);
      const limits = { ...PEAKS, apart: Math.max(1, Math.round(size.width / 3)) };
      const tell = { mayBe, isOther, isAlike };
      const sure = beyondChance(likeness.data32F, likeness.cols, limits, tell, MOST_BY_CHANCE);
      for (const { x, y, score } of sure) found.push({ at: placeOf(x, y), times, score });
    }
    return found;
  });
}

/** What counts of a lamp's sample at a scale: its glass, and a ring around it. */
function glassMask(
  cv: OpenCv,
  { width, height }: { width: number; height: number },
  off: { x: number; y: number },
  times: number,
  glass: PlatePoint,
) {
  const inside = new Uint8Array(3 * width * height);
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const dx = (x + 0.5 - off.x * times) / (RING * glass.u * times);
      const dy = (y + 0.5 - off.y * times) / (RING * glass.v * times);
      if (dx * dx + dy * dy <= 1) inside.fill(255, 3 * (y * width + x), 3 * (y * width + x) + 3);
    }
  }
  return cv.matFromArray(height, width, flags(cv).CV_8UC3, inside);
}

/** Whether a place shows glass as a lamp does: of its tone, and as much brighter or darker than what is around. */
function likeGlass(picture: Picture, at: PlatePoint, glass: PlatePoint): Fit {
  const own = glassTones(picture, at, glass, 1);
  const step = minus(own.inside, own.ring);
  const power = dot(step, step);
  return (place, times) => {
    const { inside, ring } = glassTones(picture, place, glass, times);
    const away = minus(inside, own.inside);
    return dot(minus(inside, ring), step) >= GLASS.step * power && dot(away, away) <= GLASS.tone ** 2;
  };
}

const minus = (p: Tone, q: Tone): Tone => [p[0] - q[0], p[1] - q[1], p[2] - q[2]];
const dot = (p: Tone, q: Tone): number => p[0] * q[0] + p[1] * q[1] + p[2] * q[2];

/** Likeness of what is around two places, one so many times as large (normalised correlation of all channels). */
function likenessAround(
  { width, height, rgb }: Picture,
  own: PlatePoint,
  other: PlatePoint,
  times: number,
  half: PlatePoint,
): number {
  const steps = 12;
  const sums = { n: 0, a: 0, b: 0, aa: 0, bb: 0, ab: 0 };
  const value = ({ u, v }: PlatePoint, c: number) => {
    const x = Math.min(width - 1, Math.max(0, Math.floor(u * width)));
    const y = Math.min(height - 1, Math.max(0, Math.floor(v * height)));
    return rgb[3 * (y * width + x) + c];
  };
  for (let k = 0; k < steps * steps; k++) {
    const du = half.u * (((k % steps) + 0.5) / (steps / 2) - 1);
    const dv = half.v * ((Math.floor(k / steps) + 0.5) / (steps / 2) - 1);
    for (let c = 0; c < 3; c++) {
      const a = value({ u: own.u + du, v: own.v + dv }, c);
      const b = value({ u: other.u + times * du, v: other.v + times * dv }, c);
      sums.n++;
      sums.a += a;
      sums.b += b;
      sums.aa += a * a;
      sums.bb += b * b;
      sums.ab += a * b;
    }
  }
  const { n, a, b, aa, bb, ab } = sums;
  return (n * ab - a * b) / Math.sqrt(Math.max(1e-9, (n * aa - a * a) * (n * bb - b * b)));
}

/** Mean codes of a lamp's glass, and of the ring around it. */
function glassTones({ width, height, rgb }: Picture, at: PlatePoint, glass: PlatePoint, times: number) {
  const [cx, cy] = [at.u * width, at.v * height];
  const [rx, ry] = [Math.max(1, glass.u * width * times), Math.max(1, glass.v * height * times)];
  const sums = { inside: [0, 0, 0, 0], ring: [0, 0, 0, 0] };
  for (let y = Math.floor(cy - RING * ry); y <= cy + RING * ry; y++) {
    for (let x = Math.floor(cx - RING * rx); x <= cx + RING * rx; x++) {
      if (x < 0 || y < 0 || x >= width || y >= height) continue;
      const away = hypot((x + 0.5 - cx) / rx, (y + 0.5 - cy) / ry);
      const part =
        away <= GLASS.inside ? sums.inside : away >= GLASS.from && away <= RING ? sums.ring : undefined;
      if (!part) continue;
      for (let c = 0; c < 3; c++) part[c] += rgb[3 * (y * width + x) + c];
      part[3]++;
    }
  }
  const mean = ([r, g, b, count]: number[]): Tone => [r / (count || 1), g / (count || 1), b / (count || 1)];
  return { inside: mean(sums.inside), ring: mean(sums.ring) };
}

/** Standard deviation of the codes in a part of a picture. */
function contrast(rgb: Uint8Array, stride: number, { x: left, y: top, width, height }: Box): number {
  let [sum, squares] = [0, 0];
  for (let y = top; y < top + height; y++) {
    for (let i = 3 * (y * stride + left); i < 3 * (y * stride + left + width); i++) {
      sum += rgb[i];
      squares += rgb[i] * rgb[i];
    }
  }
  const count = 3 * width * height;
  return Math.sqrt(Math.max(0, squares / count - (sum / count) ** 2));
}
