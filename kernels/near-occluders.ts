/*
 * Which of the things that cast shadows can stand between a tile of a picture and a light at all. Nothing that casts a
 * shadow on the tile is ever left out.
 *
 * What is near: counts of walls, decks and standees (u32 each), one unused, then where each begins (u32), in this order.
 */

import { leastCrossing, mayMeetStandee, mostCrossing, shareAt } from './crossing';
import { NEAR_STANDEE, OCCLUDER_CORNER_BYTES, OCCLUDER_DECK_BYTES, OCCLUDER_SIGHT, OCCLUDER_STANDEE_BYTES, OCCLUDER_HEAD_BYTES, OCCLUDER_WALL_BYTES, OCCLUDER_WALL_SIDE, OCCLUDER_WALL_SIDE_LEAST, OCCLUDER_WALL_SIDE_MOST, ON_WALL, TILE_LIST } from './generated';


/** What rounding may take off a distance, metres: less than ON_WALL. */
const SLACK: f32 = 0.0002;

@inline
function put(near: usize, at: usize, which: usize, place: usize): usize {
  store<u32>(near + which, load<u32>(near + which) + 1);
  store<u32>(at, <u32>place);
  return at + 4;
}

/** Whether two spans overlap. */
@inline
function meet(a: f32, b: f32, least: f32, most: f32): bool {
  return min<f32>(a, b) <= most && max<f32>(a, b) >= least;
}

/** Whether a way from a tile's land to a light may cross a wall on whose line's other side it lies. `side`: the light's. */
function mayMeetWall(wall: usize, bounds: usize, x: f32, y: f32, z: f32, side: f32, radius: f32): bool {
  const ax = load<f32>(wall);
  const ay = load<f32>(wall + 4);
  const ex = load<f32>(wall + 8);
  const ey = load<f32>(wall + 12);
  const least = load<f32>(wall + OCCLUDER_WALL_SIDE_LEAST);
  const most = load<f32>(wall + OCCLUDER_WALL_SIDE_MOST);
  const before = abs<f32>(side);
  const from = shareAt(before, side < 0 ? most : -least);
  const to = shareAt(before, side < 0 ? least : -most);
  const middleX = (load<f32>(bounds) + load<f32>(bounds + 4)) * 0.5;
  const middleY = (load<f32>(bounds + 8) + load<f32>(bounds + 12)) * 0.5;
  const middle = (middleX - ax) * ex + (middleY - ay) * ey;
  const half = abs<f32>(ex) * (load<f32>(bounds + 4) - middleX) + abs<f32>(ey) * (load<f32>(bounds + 12) - middleY);
  const along = (x - ax) * ex + (y - ay) * ey;
  return (
    mostCrossing(along, middle + half, from, to) >= -radius &&
    leastCrossing(along, middle - half, from, to) <= load<f32>(wall + 16) + radius &&
    leastCrossing(z, load<f32>(bounds + 16), from, to) <= load<f32>(wall + 20) + radius
  );
}

/** Whether a way from a tile's land to a light may cross a standee. */
function mayMeet(standee: usize, sight: usize, bounds: usize, x: f32, y: f32, z: f32, radius: f32): bool {
  const ahead = load<f32>(standee);
  const before = abs<f32>(y - ahead);
  const far = load<f32>(bounds + 12) - ahead;
  const near = load<f32>(bounds + 8) - ahead;
  const from = shareAt(before, y < ahead ? far : -near);
  const to = shareAt(before, y < ahead ? near : -far);
  return mayMeetStandee(
    sight,
    standee,
    ahead,
    leastCrossing(x, load<f32>(bounds), from, to),
    mostCrossing(x, load<f32>(bounds + 4), from, to),
    leastCrossing(z, load<f32>(bounds + 16), from, to),
    mostCrossing(z, load<f32>(bounds + 20), from, to),
    radius,
  );
}

/**
 * Lists what is near, for a light of some radius at a place from the eye, and notes on which side of each near wall it
 * hangs. `bounds`: of the tile's land, as `readyTile` finds them. Returns whether anything is near.
 */
export function gatherNear(
  near: usize,
  occluders: usize,
  bounds: usize,
  x: f32,
  y: f32,
  z: f32,
  radius: f32,
): bool {
  const reach: f32 = radius + SLACK;
  const x0 = min<f32>(x, load<f32>(bounds)) - reach;
  const x1 = max<f32>(x, load<f32>(bounds + 4)) + reach;
  const y0 = min<f32>(y, load<f32>(bounds + 8)) - reach;
  const y1 = max<f32>(y, load<f32>(bounds + 12)) + reach;
  const z0 = min<f32>(z, load<f32>(bounds + 16)) - reach;
  const z1 = max<f32>(z, load<f32>(bounds + 20)) + reach;
  memory.fill(near, 0, TILE_LIST);
  const sight = occluders + OCCLUDER_SIGHT;
  let at = near + TILE_LIST;
  let from = occluders + OCCLUDER_HEAD_BYTES;

  for (let k = load<u32>(occluders); k > 0; k--, from += OCCLUDER_WALL_BYTES) {
    const ax = load<f32>(from);
    const ay = load<f32>(from + 4);
    const ex = load<f32>(from + 8);
    const ey = load<f32>(from + 12);
    const length = load<f32>(from + 16);
    const side = (x - ax) * ey - (y - ay) * ex;
    const beyond = side < 0 ? load<f32>(from + OCCLUDER_WALL_SIDE_MOST) : -load<f32>(from + OCCLUDER_WALL_SIDE_LEAST);
    // All of the tile lies on the light's side.
    if (beyond < ON_WALL - SLACK) continue;
    if (load<f32>(from + 20) < z0) continue;
    if (!meet(ax, ax + ex * length, x0, x1) || !meet(ay, ay + ey * length, y0, y1)) continue;
    if (!mayMeetWall(from, bounds, x, y, z, side, reach)) continue;
    store<f32>(from + OCCLUDER_WALL_SIDE, side);
    at = put(near, at, 0, from);
  }
  for (let k = load<u32>(occluders + 4); k > 0; k--) {
    const deck = from;
    const height = load<f32>(from);
    const corners = load<u32>(from + 4);
    from += OCCLUDER_DECK_BYTES;
    let left: f32 = f32.MAX_VALUE;
    let right: f32 = -f32.MAX_VALUE;
    let front: f32 = f32.MAX_VALUE;
    let back: f32 = -f32.MAX_VALUE;
    for (let c: u32 = 0; c < corners; c++, from += OCCLUDER_CORNER_BYTES) {
      left = min<f32>(left, load<f32>(from));
      right = max<f32>(right, load<f32>(from));
      front = min<f32>(front, load<f32>(from + 4));
      back = max<f32>(back, load<f32>(from + 4));
    }
    const riseX = load<f32>(deck + 8);
    const riseY = load<f32>(deck + 12);
    const most = max<f32>(riseX * x0, riseX * x1) + max<f32>(riseY * y0, riseY * y1);
    const least = min<f32>(riseX * x0, riseX * x1) + min<f32>(riseY * y0, riseY * y1);
    if (height < z0 - most || height > z1 - least) continue;
    if (meet(left, right, x0, x1) && meet(front, back, y0, y1)) at = put(near, at, 4, deck);
  }
  for (let k = load<u32>(occluders + 8); k > 0; k--, from += OCCLUDER_STANDEE_BYTES) {
    const ahead = load<f32>(from);
    // A lamp that hangs on a standee is not held back by it.
    if (abs<f32>(ahead - y) <= NEAR_STANDEE || ahead < y0 || ahead > y1) continue;
    if (mayMeet(from, sight, bounds, x, y, z, reach)) at = put(near, at, 8, from);
  }
  return at > near + TILE_LIST;
}
