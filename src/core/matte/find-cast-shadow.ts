import { LUMINANCE } from '../color/luminance';
import { createBoxBlur } from '../plane/box-blur';
import { dilate } from '../plane/dilate';
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
      const darker = (level[i] - stops[i] - least) / SHOULDER;
      found[i] = Math.max(found[i], Math.min(1, Math.max(0, darker + 0.5)));
    }
  }
  return withoutThin(found, width, height);
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
