import { alongRay, rayThrough, type Camera, type PlatePoint } from '../geometry/camera';
import { groundPoint } from '../geometry/ground';
import { lineAt } from '../geometry/line-at';
import { hypot } from '../plane/hypot';

/** Coverage of a small plate by land, 0 to 1: the rest is sky. */
interface SeenLand {
  width: number;
  height: number;
  land: Float32Array;
}

/** Of a wall's columns the share over whose tops it reaches: chimneys and trees behind it stand out. */
const MOST_TOPS = 0.85;

/** How far over what is seen a wall goes on where the picture ends before it does. */
const BEYOND = 1.15;

/** A view ray meets a wall at this share of its length at least: along its edge its height is not told. */
const EDGE_ON = 0.03;

/** Heights that are believed, metres. */
const HEIGHT = { least: 2, most: 60 } as const;

/**
 * How high a wall is as the plate shows it, metres: up to where sky begins over its foot, or beyond the picture's edge. Undefined where none
 * of it is seen.
 *
 * @param foot two places of its foot on the ground
 */
export function seenHeight(
  camera: Camera,
  [a, b]: readonly [PlatePoint, PlatePoint],
  { width, height, land }: SeenLand,
): number | undefined {
  const [[ax, ay], [bx, by]] = [groundPoint(camera, a), groundPoint(camera, b)];
  const [nx, ny] = [by - ay, ax - bx];
  const long = hypot(nx, ny);
  const [left, right] = a.u < b.u ? [a, b] : [b, a];
  const tops: number[] = [];
  for (let x = Math.max(0, Math.floor(left.u * width)); x < Math.min(width, right.u * width); x++) {
    const u = (x + 0.5) / width;
    let y = Math.min(height - 1, Math.floor(lineAt([left, right], u) * height));
    if (!(y >= 0 && land[y * width + x] > 0.5)) continue;
    while (y > 0 && land[(y - 1) * width + x] > 0.5) y--;
    const ray = rayThrough(camera, { u, v: y / height });
    const toward = (ray[0] * nx + ray[1] * ny) / (long * hypot(ray[0], ray[1]));
    if (Math.abs(toward) < EDGE_ON) continue;
    const reach = (ax * nx + ay * ny) / (ray[0] * nx + ray[1] * ny);
    const top = alongRay(camera, ray, reach)[2];
    if (reach > 0) tops.push(y === 0 ? BEYOND * top : top);
  }
  if (tops.length === 0) return undefined;
  tops.sort((p, q) => p - q);
  const seen = tops[Math.min(tops.length - 1, Math.floor(MOST_TOPS * tops.length))];
  return Math.round(10 * Math.min(HEIGHT.most, Math.max(HEIGHT.least, seen))) / 10;
}
