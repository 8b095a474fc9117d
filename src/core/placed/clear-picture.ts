import { bilinearRow } from '../plane/bilinear-row';
import { boxAround, grown, type Box } from '../plane/box';
import type { Plane } from '../plane/plane';
import { createFiller } from '../plane/pull-push';
import { wholeRegion } from '../plane/region';
import type { PlacedBody } from './placed-schema';

/** A picture that is clear in part: interleaved RGBA, not multiplied by its coverage, codes from 0 to `full`. */
export interface ClearPicture {
  data: Uint8Array | Uint8ClampedArray | Uint16Array;
  width: number;
  height: number;
  full: number;
}

/** Pixels that are kept around what is there. */
const AROUND = 3;

/** Share of a pixel's coverage below which nothing is there. */
const LEAST = 0.02;

/** Longest side of the copy by which clear pixels are given the colours beside them. */
const FILLED = 256;

/** Whether all of a picture is there. */
export function isOpaque({ data, full }: ClearPicture): boolean {
  for (let i = 3; i < data.length; i += 4) if (data[i] < full) return false;
  return true;
}

/**
 * A picture cut down to what is there, and where in it that stands.
 *
 * @param least shortest side of what is kept, where the picture has as much
 * @returns undefined where nothing is there
 */
export function cutToBody(
  picture: ClearPicture,
  least: number,
): { picture: ClearPicture; body: PlacedBody } | undefined {
  const { width, height } = picture;
  const there = boxOf(picture);
  if (!there) return undefined;
  const kept = atLeast(grown(there, AROUND, width, height), least, width, height);
  const [wide, high] = [kept.right - kept.left, kept.bottom - kept.top];
  const body = {
    left: (there.left - kept.left) / wide,
    right: (there.right - kept.left) / wide,
    top: (there.top - kept.top) / high,
    bottom: (there.bottom - kept.top) / high,
  };
  return { picture: cutDown(picture, kept), body };
}

/** Where something stands in a picture, fractions of its sides; undefined where nothing does. */
export function bodyOf(picture: ClearPicture): PlacedBody | undefined {
  const { width, height } = picture;
  const there = boxOf(picture);
  return (
    there && {
      ...{ left: there.left / width, right: there.right / width },
      ...{ top: there.top / height, bottom: there.bottom / height },
    }
  );
}

/** The box of what is there. */
const boxOf = ({ data, width, height, full }: ClearPicture): Box | undefined =>
  boxAround(width, height, (i) => data[4 * i + 3] >= LEAST * full);

/** A box made as long and as high as it has to be. */
function atLeast({ left, top, right, bottom }: Box, least: number, width: number, height: number): Box {
  const side = (from: number, to: number, size: number): [number, number] => {
    const more = Math.max(0, least - (to - from));
    const first = Math.max(0, Math.min(from - (more >> 1), size - least));
    return [first, Math.min(size, Math.max(to, first + least))];
  };
  const [[x0, x1], [y0, y1]] = [side(left, right, width), side(top, bottom, height)];
  return { left: x0, right: x1, top: y0, bottom: y1 };
}

function cutDown({ data, width, full }: ClearPicture, { left, top, right, bottom }: Box): ClearPicture {
  const [wide, high] = [right - left, bottom - top];
  const out = full > 255 ? new Uint16Array(4 * wide * high) : new Uint8Array(4 * wide * high);
  for (let y = 0; y < high; y++) {
    const from = 4 * ((top + y) * width + left);
    out.set(data.subarray(from, from + 4 * wide), 4 * y * wide);
  }
  return { data: out, width: wide, height: high, full };
}

/** Gives what is wholly clear the colours beside it, in place, so that a smaller copy mixes nothing strange into an edge. */
export function fillClear(picture: ClearPicture): void {
  const { data, width, height } = picture;
  const fields = colorFields(picture);
  const region = wholeRegion(width, height);
  const [r, g, b] = fields.map(() => new Float32Array(width));
  for (let y = 0; y < height; y++) {
    const end = 4 * (y + 1) * width;
    let i = end - 4 * width;
    while (i < end && data[i + 3] > 0) i += 4;
    if (i === end) continue;
    [r, g, b].forEach((row, c) => bilinearRow(row, fields[c], region, y));
    for (let x = width - (end - i) / 4; x < width; x++, i += 4) {
      if (data[i + 3] > 0) continue;
      data[i] = r[x] + 0.5;
      data[i + 1] = g[x] + 0.5;
      data[i + 2] = b[x] + 0.5;
    }
  }
}

/** Pixels of each row and column that a field's pixel is made of, at most. */
const LOOKED_AT = 4;

/** Small planes of a picture's colours, filled where it is clear. */
function colorFields({ data, width, height, full }: ClearPicture): Plane[] {
  const scale = Math.min(1, FILLED / Math.max(width, height));
  const [wide, high] = [width, height].map((side) => Math.max(1, Math.round(side * scale)));
  const [weight, counts, ...planes] = Array.from({ length: 5 }, () => new Float32Array(wide * high));
  const stride = Math.max(1, Math.floor(1 / scale / LOOKED_AT));
  const [r, g, b] = planes;
  for (let y = 0; y < height; y += stride) {
    const row = Math.min(high - 1, Math.floor(y * scale)) * wide;
    for (let x = 0; x < width; x += stride) {
      const at = row + Math.min(wide - 1, Math.floor(x * scale));
      const i = 4 * (y * width + x);
      const share = data[i + 3] / full;
      counts[at]++;
      weight[at] += share;
      r[at] += share * data[i];
      g[at] += share * data[i + 1];
      b[at] += share * data[i + 2];
    }
  }
  for (let i = 0; i < weight.length; i++) {
    for (const plane of planes) plane[i] = weight[i] > 0 ? plane[i] / weight[i] : 0;
    weight[i] = counts[i] > 0 ? weight[i] / counts[i] : 0;
  }
  const fill = createFiller(weight, wide, high);
  return planes.map((plane) => {
    fill(plane);
    return { width: wide, height: high, data: plane };
  });
}
