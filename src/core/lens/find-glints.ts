import { LUMINANCE } from '../color/luminance';
import type { Box } from '../plane/box';
import { createBoxBlur } from '../plane/box-blur';
import type { RgbPlanes } from '../plane/plane';
import type { Glint } from './glint';
import { hypot } from '../plane/hypot';

/** Light of the picture from which a place may be a source, and how many times that of its surroundings it has at least. */
const BRIGHT = { least: 0.3, against: 5 } as const;

/** Half the window of surroundings, and the most that a source's side may measure, fractions of the width. */
const AROUND = 0.03;
const LARGEST = 0.025;

/** How full its box a source is at least, and how many times as long as broad at most. */
const FULL = 0.45;
const LONGEST = 2.2;

/** So many others of its size within so many of its sizes: lettering, a row of bright panes, sun through leaves. */
const CROWD = { others: 3, within: 5, alike: 2.5 } as const;

/** How much brighter than the film holds them things are: those that burnt in the photo, and those that are said to. */
const HELD = { found: 32, said: 256 } as const;

/** Bright pixels that hang together. */
interface Blob extends Box {
  pixels: number[];
}

/** Pixels of a mask that hang together, by sides and corners. */
function blobsOf(mask: Uint8Array, width: number, height: number): Blob[] {
  const blobs: Blob[] = [];
  const open: number[] = [];
  for (let start = 0; start < mask.length; start++) {
    if (mask[start] === 0) continue;
    const blob: Blob = { left: width, right: 0, top: height, bottom: 0, pixels: [] };
    mask[start] = 0;
    open.push(start);
    for (let i = open.pop(); i !== undefined; i = open.pop()) {
      const [x, y] = [i % width, Math.floor(i / width)];
      blob.pixels.push(i);
      blob.left = Math.min(blob.left, x);
      blob.right = Math.max(blob.right, x + 1);
      blob.top = Math.min(blob.top, y);
      blob.bottom = Math.max(blob.bottom, y + 1);
      for (let v = Math.max(0, y - 1); v <= Math.min(height - 1, y + 1); v++) {
        for (let u = Math.max(0, x - 1); u <= Math.min(width - 1, x + 1); u++) {
          if (mask[v * width + u] === 0) continue;
          mask[v * width + u] = 0;
          open.push(v * width + u);
        }
      }
    }
    blobs.push(blob);
  }
  return blobs;
}

const sizeOf = ({ left, right, top, bottom }: Blob) => Math.max(right - left, bottom - top);
const middleOf = ({ left, right, top, bottom }: Blob) => [(left + right) / 2, (top + bottom) / 2];

/** Whether a blob is as compact as a lamp. */
function isCompact(blob: Blob, width: number): boolean {
  const [wide, high] = [blob.right - blob.left, blob.bottom - blob.top];
  if (sizeOf(blob) > Math.max(2, LARGEST * width)) return false;
  if (Math.max(wide, high) > LONGEST * Math.min(wide, high) && sizeOf(blob) > 2) return false;
  return blob.pixels.length >= FULL * wide * high;
}

/** Whether a blob stands among others of its size. */
function isInCrowd(blob: Blob, all: readonly Blob[]): boolean {
  const size = sizeOf(blob);
  const [x, y] = middleOf(blob);
  const others = all.filter((other) => {
    const [u, v] = middleOf(other);
    const ratio = sizeOf(other) / size;
    return (
      other !== blob &&
      hypot(u - x, v - y) < CROWD.within * Math.max(2, size) &&
      ratio < CROWD.alike &&
      ratio > 1 / CROWD.alike
    );
  });
  return others.length >= CROWD.others;
}

/**
 * Finds what burns in a picture by itself: compact places that are far brighter than all around, such as lamps that were lit by day, the
 * moon and the brightest stars. Lettering, panes and what is long are refused.
 *
 * @param light of the picture without fixtures, on a small copy
 */
export function findGlints(light: RgbPlanes): Glint[] {
  const { width, height, r, g, b } = light;
  const luminance = new Float32Array(r.length);
  for (let i = 0; i < r.length; i++)
    luminance[i] = LUMINANCE[0] * r[i] + LUMINANCE[1] * g[i] + LUMINANCE[2] * b[i];
  const around = new Float32Array(r.length);
  createBoxBlur(width, height, Math.max(2, Math.round(AROUND * width)))(around, luminance);
  const mask = new Uint8Array(r.length);
  for (let i = 0; i < mask.length; i++)
    mask[i] = luminance[i] > BRIGHT.least && luminance[i] > BRIGHT.against * around[i] ? 1 : 0;
  const blobs = blobsOf(mask, width, height);
  return blobs
    .filter((blob) => isCompact(blob, width) && !isInCrowd(blob, blobs))
    .map(({ pixels }) => glintOf(pixels, light, luminance));
}

/** The light of some pixels as one source, at its middle. */
function glintOf(
  pixels: readonly number[],
  { width, height, ...planes }: RgbPlanes,
  luminance: Float32Array,
): Glint {
  let [all, x, y] = [0, 0, 0];
  for (const i of pixels) {
    all += luminance[i];
    x += luminance[i] * ((i % width) + 0.5);
    y += luminance[i] * (Math.floor(i / width) + 0.5);
  }
  const sum = (plane: Float32Array) =>
    (HELD.found * pixels.reduce((light, i) => light + plane[i], 0)) / (width * width);
  return {
    ...{ u: x / all / width, v: y / all / height },
    ...{ r: sum(planes.r), g: sum(planes.g), b: sum(planes.b), from: 'found' as const },
  };
}

/** How far around a place light is gathered that is said to be a source, fraction of the width. */
const SAID_REACH = 0.01;

/**
 * The light of a place that is said to be a source: what is there over what is around it.
 *
 * @param light of the picture, on a small copy
 */
export function glintAt(light: RgbPlanes, u: number, v: number): Glint {
  const { width, height } = light;
  const reach = Math.max(1, SAID_REACH * width);
  const [x, y] = [u * width - 0.5, v * height - 0.5];
  const inside: number[] = [];
  for (let j = Math.max(0, Math.ceil(y - reach)); j <= Math.min(height - 1, Math.floor(y + reach)); j++)
    for (let i = Math.max(0, Math.ceil(x - reach)); i <= Math.min(width - 1, Math.floor(x + reach)); i++)
      if (hypot(i - x, j - y) <= reach) inside.push(j * width + i);
  const sum = (plane: Float32Array) => {
    const least = inside.reduce((low, i) => Math.min(low, plane[i]), Infinity);
    return inside.reduce((all, i) => all + (plane[i] - least), 0) * (HELD.said / (width * width));
  };
  return { u, v, r: sum(light.r), g: sum(light.g), b: sum(light.b), from: 'said' };
}
