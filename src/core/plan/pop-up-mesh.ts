import type { Camera } from '../geometry/camera';

/** A relief as triangles, for looking at it from aside. */
export interface PopUpMesh {
  /** Places, three floats each: right, up, and toward the eye from where it stood; metres. */
  places: Float32Array;
  /** Where on the picture each is seen: from the left, from the bottom. */
  textureAt: Float32Array;
  triangles: Uint32Array;
  /** How far ahead the middle of what is there lies, metres. */
  middle: number;
}

/** Neighbours whose distances differ by more than this ratio do not hang together: there the book is cut. */
const CUT = 1.12;

/** What lies farther than this many times the middle distance is left out. */
const FARTHEST = 6;

/**
 * The land of a small relief as a mesh: every second pixel is a corner, and where distances leap there is a gap, so that
 * standees stand free.
 *
 * @param reach how far along each pixel's view ray its surface lies, in the ray's own lengths
 * @param land coverage by land
 */
export function popUpMesh(
  { corner, across, down, eyeHeight }: Camera,
  { width, height, reach, land }: { width: number; height: number; reach: Float32Array; land: Float32Array },
): PopUpMesh {
  const [columns, rows] = [width >> 1, height >> 1];
  const places = new Float32Array(3 * columns * rows);
  const textureAt = new Float32Array(2 * columns * rows);
  const distances = new Float32Array(columns * rows);
  for (let row = 0, k = 0; row < rows; row++) {
    for (let column = 0; column < columns; column++, k++) {
      const [u, v] = [(2 * column + 0.5) / width, (2 * row + 0.5) / height];
      const i = 2 * row * width + 2 * column;
      const at = (c: 0 | 1 | 2) => (corner[c] + u * across[c] + v * down[c]) * reach[i];
      places.set([at(0), at(2) + eyeHeight, -at(1)], 3 * k);
      textureAt.set([u, 1 - v], 2 * k);
      distances[k] = land[i] > 0.5 ? at(1) : Infinity;
    }
  }
  const near = [...distances].filter(Number.isFinite).sort((p, q) => p - q);
  const middle = near[near.length >> 1] ?? 10;
  const triangles: number[] = [];
  const whole = (a: number, b: number, c: number) => {
    const all = [distances[a], distances[b], distances[c]];
    const most = Math.max(...all);
    return most < FARTHEST * middle && most < CUT * Math.min(...all);
  };
  for (let row = 0; row + 1 < rows; row++) {
    for (let column = 0; column + 1 < columns; column++) {
      const a = row * columns + column;
      const [b, c, d] = [a + 1, a + columns, a + columns + 1];
      if (whole(a, b, c)) triangles.push(a, b, c);
      if (whole(b, c, d)) triangles.push(b, d, c);
    }
  }
  return { places, textureAt, triangles: Uint32Array.from(triangles), middle };
}
