import { LUMINANCE } from '../color/luminance';
import { createBoxBlur } from '../plane/box-blur';
import { dilate } from '../plane/dilate';
import { flood } from '../plane/flood';
import type { RgbPlanes } from '../plane/plane';

/** Luminance that counts as black. */
const BLACK = 1 / 1024;

/** How softly a shadow is told from what is not dark enough, stops. */
const SHOULDER = 0.5;

/**
 * How far around lit ground is looked for, fractions of the width, and how much darker and bluer than it a shadow is, stops: the
 * farther it lies, the more the ground may differ by itself.
 */
const AROUND = [
  { reach: 0.12, darker: 0.7, bluer: 0.12 },
  { reach: 1, darker: 1.3, bluer: 0.18 },
] as const;

/** What is thinner than twice this is a post or a rail, not a shadow, fraction of the width. */
const THIN = 0.006;

/** A patch that is this share as deep as the largest shadow of the picture, or less, is a stain: the sun is missing in all shadows alike. */
const SHALLOW = 0.6;

/** Coverage from which a pixel belongs to a patch of shadow. */
const PATCH = 0.1;

/**
 * Where the sun's shadows lie on the ground of a small copy: darker than the brighter half of the ground around, near by or
 * farther off, and no warmer than it, 0 to 1.
 */
export function findCastShadow({ width, height, r, g, b }: RgbPlanes, ground: Float32Array): Float32Array {
  const stops = r.map((red, i) =>
    Math.log2(BLACK + LUMINANCE[0] * red + LUMINANCE[1] * g[i] + LUMINANCE[2] * b[i]),
  );
  const blue = r.map((red, i) => Math.log2((BLACK + b[i]) / (BLACK + red)));
  const found = new Float32Array(width * height);
  const depth = new Float32Array(width * height);
  for (const { reach, darker: least, bluer } of AROUND) {
    const blur = createBoxBlur(width, height, Math.max(2, Math.round(reach * width)));
    const over = (weight: Float32Array, data: Float32Array) => {
      const [top, below] = [0, 1].map(() => new Float32Array(width * height));
      blur(
        top,
        data.map((value, i) => value * weight[i]),
      );
      blur(below, weight);
      return top.map((value, i) => value / Math.max(1e-5, below[i]));
    };
    const middle = over(ground, stops);
    const lit = ground.map((cover, i) => (stops[i] >= middle[i] ? cover : 0));
    const [level, hue] = [over(lit, stops), over(lit, blue)];
    for (let i = 0; i < found.length; i++) {
      if (ground[i] <= 0.5 || blue[i] - hue[i] <= bluer) continue;
      depth[i] = Math.max(depth[i], level[i] - stops[i]);
      const darker = (level[i] - stops[i] - least) / SHOULDER;
      found[i] = Math.max(found[i], Math.min(1, Math.max(0, darker + 0.5)));
    }
  }
  const coverage = withoutThin(found, width, height);
  dropShallow(coverage, depth, width, height);
  return coverage;
}

/** Drops patches of shadow that are far less deep than the largest. */
function dropShallow(coverage: Float32Array, depth: Float32Array, width: number, height: number): void {
  const open = Uint8Array.from(coverage, (value) => (value > PATCH ? 1 : 0));
  const reached = new Int32Array(coverage.length);
  const patches: { pixels: Int32Array; stops: number }[] = [];
  open.forEach((isOpen, i) => {
    if (!isOpen) return;
    const size = flood(reached, open, width, height, i);
    const pixels = reached.slice(0, size);
    for (const pixel of pixels) open[pixel] = 0;
    patches.push({ pixels, stops: pixels.reduce((sum, pixel) => sum + depth[pixel], 0) / pixels.length });
  });
  const [largest] = patches.toSorted((a, b) => b.pixels.length - a.pixels.length);
  for (const { pixels, stops } of patches)
    if (stops < SHALLOW * largest.stops) for (const pixel of pixels) coverage[pixel] = 0;
}

/** A coverage without what is thin: opened by an octagon (eroded, then dilated), and cut to what it was. */
function withoutThin(coverage: Float32Array, width: number, height: number): Float32Array {
  const radius = Math.max(1, THIN * width);
  const opened = coverage.map((value) => 1 - value);
  dilate(opened, width, height, radius);
  for (let i = 0; i < opened.length; i++) opened[i] = 1 - opened[i];
  dilate(opened, width, height, radius + 1);
  return coverage.map((value, i) => Math.min(value, opened[i]));
}
