import type { Alike } from '@/core/fixture/twins';
import type { PlatePoint } from '@/core/geometry/camera';
import { flags, withMats, type OpenCv } from './opencv';
import type { Picture } from './picture';

/** What is looked for: the part of the plate around a place, half its sides as fractions of width and height. */
export interface Sample {
  at: PlatePoint;
  half: PlatePoint;
}

/** Sizes that are tried against the sample's, from the smallest, each so much larger than the one before. */
const SCALES = { from: 0.36, to: 2.4, step: 1.16 } as const;

/** Least side of a sample at a scale, pixels; likeness from which a place counts; most places a scale. */
const SMALLEST = 7;
const LEAST = 0.48;
const MOST = 60;

/** Contrast under which a sample shows nothing, codes. */
const PLAIN = 4;

/** Least contrast of a place against the sample's: what is plain is like anything. */
const LEAST_CONTRAST = 0.4;

/** Places of a picture that look like a part of it, at any size (normalised correlation of all channels, per scale). */
export function findAlike(cv: OpenCv, { width, height, rgb }: Picture, { at, half }: Sample): Alike[] {
  const x0 = Math.max(0, Math.floor((at.u - half.u) * width));
  const y0 = Math.max(0, Math.floor((at.v - half.v) * height));
  const across = Math.min(width, Math.ceil((at.u + half.u) * width)) - x0;
  const down = Math.min(height, Math.ceil((at.v + half.v) * height)) - y0;
  if (across < SMALLEST || down < SMALLEST) return [];
  // The sample may be cut by the picture's edge: its own middle against the place.
  const off = { x: at.u * width - x0, y: at.v * height - y0 };
  return withMats((keep) => {
    const picture = keep(cv.matFromArray(height, width, flags(cv).CV_8UC3, rgb));
    const sample = keep(picture.roi({ x: x0, y: y0, width: across, height: down }));
    const own = contrast(rgb, width, x0, y0, { width: across, height: down });
    if (own < PLAIN) return [];
    const found: Alike[] = [];
    for (let times: number = SCALES.from; times <= SCALES.to; times *= SCALES.step) {
      const size = { width: Math.round(across * times), height: Math.round(down * times) };
      if (Math.min(size.width, size.height) < SMALLEST) continue;
      if (size.width >= width || size.height >= height) break;
      const [scaled, likeness] = [keep(new cv.Mat()), keep(new cv.Mat())];
      const way = times < 1 ? flags(cv).INTER_AREA : flags(cv).INTER_LINEAR;
      cv.resize(sample, scaled, size, 0, 0, way);
      cv.matchTemplate(picture, scaled, likeness, flags(cv).TM_CCOEFF_NORMED);
      for (const { x, y, score } of peaks(likeness.data32F, likeness.cols, likeness.rows, size.width)) {
        if (contrast(rgb, width, x, y, size) < LEAST_CONTRAST * own) continue;
        found.push({
          at: { u: (x + off.x * times) / width, v: (y + off.y * times) / height },
          times,
          score,
        });
      }
    }
    return found;
  });
}

/** Standard deviation of the codes in a part of a picture. */
function contrast(
  rgb: Uint8Array,
  width: number,
  left: number,
  top: number,
  size: { width: number; height: number },
): number {
  let [sum, squares] = [0, 0];
  for (let y = top; y < top + size.height; y++) {
    for (let i = 3 * (y * width + left); i < 3 * (y * width + left + size.width); i++) {
      sum += rgb[i];
      squares += rgb[i] * rgb[i];
    }
  }
  const count = 3 * size.width * size.height;
  return Math.sqrt(Math.max(0, squares / count - (sum / count) ** 2));
}

/** The highest places of a plane, each the highest within `apart` pixels of it. */
function peaks(data: Float32Array, columns: number, rows: number, apart: number) {
  const reach = Math.max(1, Math.round(apart / 3));
  const high: { x: number; y: number; score: number }[] = [];
  for (let y = 0; y < rows; y++) {
    for (let x = 0; x < columns; x++) {
      const score = data[y * columns + x];
      if (score >= LEAST && score <= 1.01) high.push({ x, y, score });
    }
  }
  high.sort((a, b) => b.score - a.score);
  const kept: typeof high = [];
  for (const one of high) {
    if (kept.length >= MOST) break;
    if (kept.every(({ x, y }) => Math.hypot(x - one.x, y - one.y) > reach)) kept.push(one);
  }
  return kept;
}
