import { createBoxBlur } from './box-blur';

/** A filter's result as a local line of the guide: value = slope * guide + offset, per pixel. */
export interface GuidedLine {
  slope: Float32Array;
  offset: Float32Array;
}

/**
 * Guided filter with a grey guide (He, Sun and Tang 2013), given as its averaged local lines, so that they can be
 * found on a small picture and applied to a large one (He and Sun 2015). Prepared once for a guide.
 *
 * @param guide width * height values
 * @param radius half the window, pixels
 * @param epsilon variance of the guide under which a place counts as flat
 */
export function createGuidedFilter(
  guide: Float32Array,
  width: number,
  height: number,
  radius: number,
  epsilon: number,
) {
  const blur = createBoxBlur(width, height, radius);
  const size = width * height;
  const mean = new Float32Array(size);
  const variance = new Float32Array(size);
  blur(mean, guide);
  for (let i = 0; i < size; i++) variance[i] = guide[i] * guide[i];
  blur(variance, variance);
  for (let i = 0; i < size; i++) variance[i] = Math.max(0, variance[i] - mean[i] * mean[i]);

  return (source: Float32Array): GuidedLine => {
    const slope = new Float32Array(size);
    const offset = new Float32Array(size);
    blur(offset, source);
    for (let i = 0; i < size; i++) slope[i] = guide[i] * source[i];
    blur(slope, slope);
    for (let i = 0; i < size; i++) {
      slope[i] = (slope[i] - mean[i] * offset[i]) / (variance[i] + epsilon);
      offset[i] -= slope[i] * mean[i];
    }
    blur(slope, slope);
    blur(offset, offset);
    return { slope, offset };
  };
}
