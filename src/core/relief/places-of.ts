import { FARTHEST_GROUND } from '../geometry/ground';
import { codeOf } from '../survey/said';

/** What is known of the pixels of a region: coverages 0 to 1, and the way through haze, metres. */
interface Known {
  land: Float32Array;
  /** Share of the normal that points up. */
  level: Float32Array;
  distance: Float32Array;
  /** Coverage by water on the ground, if any is said. */
  water?: Float32Array;
}

/** What lies farther than this share of the farthest ground counts as far. */
const FAR = 0.9;

/** What each pixel of a region is taken for: one more than its place in SAID. */
export function placesOf({ land, level, distance, water }: Known): Uint8Array {
  const [ground, upright, far, sky, wet] = (['ground', 'upright', 'far', 'sky', 'water'] as const).map(
    codeOf,
  );
  return Uint8Array.from(land, (share, i) => {
    if (share < 0.5) return sky;
    if (level[i] > Math.SQRT1_2) return water && water[i] > 0.5 ? wet : ground;
    return distance[i] > FAR * FARTHEST_GROUND ? far : upright;
  });
}
