import { LUMINANCE } from '../color/luminance';
import { createBoxBlur } from '../plane/box-blur';
import { dilate } from '../plane/dilate';
import type { RgbPlanes } from '../plane/plane';

/** Luminance that counts as black. */
const BLACK = 1 / 1024;

/** Ground shows a cast shadow where it is this much darker than the lit ground around, stops, and bluer. */
const CAST = { around: 0.12, darker: 0.7, bluer: 0.12, shoulder: 0.5 } as const;

/** What is thinner than twice this is a post or a rail, not a shadow, fraction of the width. */
const THIN = 0.006;

/**
 * Where the sun's shadows lie on the ground of a small copy: darker than the brighter half of the ground around, and no
 * warmer than it, 0 to 1.
 */
export function findCastShadow({ width, height, r, g, b }: RgbPlanes, ground: Float32Array): Float32Array {
  const stops = r.map((red, i) =>
    Math.log2(BLACK + LUMINANCE[0] * red + LUMINANCE[1] * g[i] + LUMINANCE[2] * b[i]),
  );
  const blue = r.map((red, i) => Math.log2((BLACK + b[i]) / (BLACK + red)));
  const blur = createBoxBlur(width, height, Math.max(2, Math.round(CAST.around * width)));
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
  const found = stops.map((value, i) => {
    const darker = (level[i] - value - CAST.darker) / CAST.shoulder;
    const bluer = blue[i] - hue[i] > CAST.bluer ? 1 : 0;
    return ground[i] > 0.5 ? bluer * Math.min(1, Math.max(0, darker + 0.5)) : 0;
  });
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
