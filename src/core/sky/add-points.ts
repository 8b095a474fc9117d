import type { Camera } from '../geometry/camera';
import type { RgbPlanes } from '../plane/plane';
import type { Region } from '../plane/region';
import { POINT_STRIDE } from './star-points';

/** Narrowest image of a point, pixels (sigma): finer ones would flicker between pixels. */
const NARROWEST = 0.55;

/** How far an image reaches, in sigmas. */
const REACH = 3;

/** How much light of a point at (u, v) a pixel of a picture of some width gets: its share of the sky, steradians. */
export function pixelSteradians(
  { corner, across, down, focal, aspect }: Camera,
  fullWidth: number,
  u: number,
  v: number,
): number {
  let ray = 0;
  for (let c = 0; c < 3; c++) ray += (corner[c] + u * across[c] + v * down[c]) ** 2;
  const height = Math.round(fullWidth / aspect);
  // A pixel's area on the film over the square of its distance, times the cosine of its slant.
  return focal / (fullWidth * height * aspect * ray ** 1.5);
}

/**
 * Adds points of light to a region as round images that keep the point's light at every size.
 *
 * @param out radiance of the region, cd/m2
 * @param points POINT_STRIDE floats a point: place, and lux in linear sRGB
 * @param sigma breadth of an image, fraction of the picture's width
 * @param through what a pixel lets through, 0 to 1
 */
export function addPoints(
  out: RgbPlanes,
  points: Float32Array,
  count: number,
  sigma: number,
  gain: number,
  camera: Camera,
  region: Region,
  through: (pixel: number) => number,
): void {
  const breadth = Math.max(NARROWEST, sigma * region.fullWidth);
  const reach = Math.ceil(REACH * breadth);
  const falls = -0.5 / (breadth * breadth);
  const [across, down] = [new Float64Array(2 * reach + 1), new Float64Array(2 * reach + 1)];
  for (let k = 0; k < count; k++) {
    const [u, v, r, g, b] = points.subarray(POINT_STRIDE * k, POINT_STRIDE * (k + 1));
    const [px, py] = [u * region.fullWidth - 0.5 - region.left, v * region.fullHeight - 0.5 - region.top];
    const [x0, y0] = [Math.round(px) - reach, Math.round(py) - reach];
    if (x0 >= region.width || y0 >= region.height || x0 + 2 * reach < 0 || y0 + 2 * reach < 0) continue;
    let [wide, high] = [0, 0];
    for (let i = 0; i <= 2 * reach; i++) {
      wide += across[i] = Math.exp(falls * (x0 + i - px) ** 2);
      high += down[i] = Math.exp(falls * (y0 + i - py) ** 2);
    }
    const unit = gain / (wide * high * pixelSteradians(camera, region.fullWidth, u, v));
    for (let j = Math.max(0, -y0); j <= 2 * reach && y0 + j < region.height; j++) {
      for (let i = Math.max(0, -x0); i <= 2 * reach && x0 + i < region.width; i++) {
        const at = (y0 + j) * region.width + x0 + i;
        const share = unit * across[i] * down[j] * through(at);
        out.r[at] += share * r;
        out.g[at] += share * g;
        out.b[at] += share * b;
      }
    }
  }
}
