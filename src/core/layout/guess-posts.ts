import type { Camera, PlatePoint } from '../geometry/camera';
import { groundPoint, horizonAt } from '../geometry/ground';
import type { LandCover } from './settle-foot';
import { placeOnStalk } from '../geometry/place-on-stalk';
import { hypot } from '../plane/hypot';

/** A thin upright thing of the plate. */
export interface UprightThing {
  outline: PlatePoint[];
}

/** A post that was guessed: its outline and where it stands. */
export interface GuessedPost {
  outline: PlatePoint[];
  foot: PlatePoint;
}

/** How high and how broad posts, bollards and lamp-posts are, metres. */
const HEIGHT = { least: 0.55, most: 9 } as const;
const BROADEST = 0.6;

/** How many times as high as broad a post is seen at least: a leg under a coat is less. */
const SLENDER = 3.5;

/** So far up from its foot to the horizon the ground is still seen on both sides: a door or a pipe has its wall beside it. */
const CLEAR = 0.15;

/** A foot lies this far under the horizon at least, fraction of the height. */
const UNDER = 0.02;

/** How far beside and below its foot ground must be seen, fractions of the width. */
const BESIDE = 0.012;
const BELOW = 0.008;

/** Most posts that are guessed. */
const MOST = 16;

/**
 * The upright things that are posts by the lie of the land: ground is seen on both sides of their foot, and they are as
 * high and as broad as posts. The largest first; of those that cover one another the largest alone.
 */
export function guessPosts(
  things: readonly UprightThing[],
  { width, height, ground }: Omit<LandCover, 'sky'>,
  camera: Camera,
  horizon: { left: number; right: number },
): GuessedPost[] {
  const isGround = (u: number, v: number) => {
    const [x, y] = [Math.floor(u * width), Math.floor(v * height)];
    return x >= 0 && y >= 0 && x < width && y < height && ground[y * width + x] > 0.5;
  };
  const found = things.flatMap(({ outline }) => {
    const [us, vs] = [outline.map(({ u }) => u), outline.map(({ v }) => v)];
    const [left, right, top, bottom] = [Math.min(...us), Math.max(...us), Math.min(...vs), Math.max(...vs)];
    const foot = { u: (left + right) / 2, v: bottom };
    if (foot.v < horizonAt(horizon, foot.u) + UNDER) return [];
    const low = Math.min(1 - 0.5 / height, foot.v);
    const stands =
      isGround(left - BESIDE, low) && isGround(right + BESIDE, low) && isGround(foot.u, low + BELOW);
    const beside = low - CLEAR * (low - horizonAt(horizon, foot.u));
    if (!stands || !isGround(left - BESIDE, beside) || !isGround(right + BESIDE, beside)) return [];
    if ((bottom - top) / camera.aspect < SLENDER * (right - left)) return [];
    const [x, y] = groundPoint(camera, foot);
    const [otherX, otherY] = groundPoint(camera, { u: foot.u + right - left, v: foot.v });
    const tall = placeOnStalk(camera, { u: foot.u, v: top }, foot)[2];
    if (tall < HEIGHT.least || tall > HEIGHT.most) return [];
    if (hypot(otherX - x, otherY - y) > BROADEST) return [];
    return [{ outline, foot, left, right, top, bottom, area: (right - left) * (bottom - top) }];
  });
  found.sort((a, b) => b.area - a.area);
  const kept: typeof found = [];
  for (const post of found) {
    const apart = kept.every(
      (other) =>
        post.left > other.right + BESIDE / 2 ||
        post.right < other.left - BESIDE / 2 ||
        post.top > other.bottom ||
        post.bottom < other.top,
    );
    if (apart) kept.push(post);
    if (kept.length === MOST) break;
  }
  return kept.map(({ outline, foot }) => ({ outline, foot }));
}
