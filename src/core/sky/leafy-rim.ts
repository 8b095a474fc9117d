import { createBoxBlur } from '../plane/box-blur';
import type { Plane } from '../plane/plane';
import { smoothStep } from '../plane/smooth-step';

/** How far around leaves others may be, so full of sky that they are no green, and over how much contrast is told: fractions of the width. */
const REACH = { rim: 0.04, contrast: 0.015 } as const;

/** Share of leaves around that is enough, and how busy such a place is: standard deviation of its light over the mean. */
const AROUND = 0.25;
const BUSY = { from: 0.35, to: 0.6 } as const;

const pixels = (fraction: number, width: number) => Math.max(1, Math.round(fraction * width));

/**
 * Coverage by leaves, with the rim of them through which the sky is seen: beside leaves, and as busy as leaves before the sky are. A wall
 * beside a tree is calm.
 *
 * @param light luminance of a small copy, linear
 * @param leaves coverage by leaves, 0 to 1
 */
export function leafyRim({ width, height, data }: Plane, leaves: Float32Array): Float32Array {
  const blurred = (plane: Float32Array, reach: number) => {
    const out = new Float32Array(plane.length);
    createBoxBlur(width, height, pixels(reach, width))(out, plane);
    return out;
  };
  const around = blurred(leaves, REACH.rim);
  const mean = blurred(data, REACH.contrast);
  const square = blurred(
    data.map((light) => light * light),
    REACH.contrast,
  );
  return leaves.map((share, i) => {
    const contrast = Math.sqrt(Math.max(0, square[i] - mean[i] ** 2)) / Math.max(1e-4, mean[i]);
    const rim = Math.min(1, around[i] / AROUND) * smoothStep(BUSY.from, BUSY.to, contrast);
    return Math.max(share, rim);
  });
}
