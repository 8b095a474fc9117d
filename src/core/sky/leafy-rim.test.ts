import { describe, expect, it } from 'vitest';
import { leafyRim } from './leafy-rim';

const [W, H] = [200, 60];

/** Leaves on the left half; what lies beside them has so much contrast from pixel to pixel. */
function beside(contrast: number): Float32Array {
  const leaves = Float32Array.from({ length: W * H }, (_, i) => (i % W < W / 2 ? 1 : 0));
  const data = leaves.map((_, i) => 0.4 * (1 + ((i + Math.floor(i / W)) % 2 ? contrast : -contrast)));
  return leafyRim({ width: W, height: H, data }, leaves);
}

const at = (rim: Float32Array, x: number) => rim[30 * W + x];

describe('the rim of leaves', () => {
  it('goes on from leaves into what is as busy as leaves before the sky, and not far', () => {
    const rim = beside(0.9);
    expect(at(rim, 103)).toBeGreaterThan(0.9);
    expect(at(rim, 125)).toBe(0);
  });

  it('leaves a calm wall beside a tree out, and leaves themselves in', () => {
    const rim = beside(0.1);
    expect(at(rim, 103)).toBe(0);
    expect(at(rim, 40)).toBe(1);
  });
});
