import type { SkyPicturePlace } from './sky-picture';

/** How far a picture of a sky reaches beyond the plate's sides, and over its top, at first. */
const BEYOND = 1.06;

/**
 * Where a picture of a sky first lies: its lower edge on the horizon, which it has at its bottom, and large enough that no sky stays without
 * it.
 *
 * @param horizon of the plan, fractions of the plate's height
 * @param plateAspect width over height of the plate
 * @param aspect width over height of the picture
 */
export function fittedPlace(
  horizon: { left: number; right: number },
  plateAspect: number,
  aspect: number,
): SkyPicturePlace {
  const foot = Math.min(1, Math.max(0.15, (horizon.left + horizon.right) / 2));
  const slope = Math.atan2((horizon.right - horizon.left) / plateAspect, 1);
  // Heights as fractions of the plate's height; the picture's own is its width times this.
  const perWidth = plateAspect / aspect;
  const across = Math.min(8, Math.max(BEYOND, (BEYOND * foot) / perWidth));
  return {
    at: { u: 0.5, v: foot - (across * perWidth) / 2 },
    across,
    turn: Math.round((slope * 180) / Math.PI),
  };
}
