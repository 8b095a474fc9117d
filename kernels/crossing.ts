/*
 * Where the ways from a tile to a light cross the plane of what may cast a shadow: an upright one, with the light on one of its sides.
 * A way ends at a share of the light's distance that depends only on how far behind the plane it begins.
 */

/** What rounding may take off a distance, metres, and off a place of the plate. */
const SLACK: f32 = 0.0002;
const SLACK_SEEN: f32 = 1e-4;

/** Least of what a way from between `low` and `high` has come to after a share of it between `from` and `to`. */
@inline
export function leastCrossing(at: f32, low: f32, from: f32, to: f32): f32 {
  return at + (low - at) * (low < at ? to : from) - SLACK;
}

/** Most of it. */
@inline
export function mostCrossing(at: f32, high: f32, from: f32, to: f32): f32 {
  return at + (high - at) * (high > at ? to : from) + SLACK;
}

/** Share of the way from the light at which it crosses, for a light `before` a plane and a place `behind` it, metres. */
@inline
export function shareAt(before: f32, behind: f32): f32 {
  return before / (before + max<f32>(0, behind));
}

/**
 * Whether a rectangle of the plane `ahead`, from the eye, may be seen within the bounds of a standee. The part of the plate where a
 * rectangle before the eye is seen is bounded by its corners.
 */
export function mayMeetStandee(
  sight: usize,
  standee: usize,
  ahead: f32,
  x0: f32,
  x1: f32,
  z0: f32,
  z1: f32,
  radius: f32,
): bool {
  let left: f32 = f32.MAX_VALUE;
  let top: f32 = f32.MAX_VALUE;
  let nearest: f32 = f32.MAX_VALUE;
  let right: f32 = -f32.MAX_VALUE;
  let bottom: f32 = -f32.MAX_VALUE;
  for (let k = 0; k < 4; k++) {
    const x = k & 1 ? x1 : x0;
    const z = k & 2 ? z1 : z0;
    const depth = along(sight, 0, x, ahead, z);
    if (!(depth > 1e-3)) return true;
    const u = along(sight, 12, x, ahead, z) / depth - load<f32>(sight + 36);
    const v = along(sight, 24, x, ahead, z) / depth - load<f32>(sight + 40);
    nearest = min<f32>(nearest, depth);
    left = min<f32>(left, u);
    right = max<f32>(right, u);
    top = min<f32>(top, v);
    bottom = max<f32>(bottom, v);
  }
  const soft = radius / nearest + SLACK_SEEN;
  const tall = soft * load<f32>(sight + 44);
  return (
    right >= load<f32>(standee + 4) - soft &&
    left <= load<f32>(standee + 8) + soft &&
    bottom >= load<f32>(standee + 12) - tall &&
    top <= load<f32>(standee + 16) + tall
  );
}

@inline
function along(sight: usize, first: usize, x: f32, y: f32, z: f32): f32 {
  const at = sight + first;
  return x * load<f32>(at) + y * load<f32>(at + 4) + z * load<f32>(at + 8);
}
