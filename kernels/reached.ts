/* Which tiles a light can reach at all. None that it lights is ever left out. */

import {
  LIGHT_BEAM, LIGHT_EVEN, LIGHT_FACES, LIGHT_RADIUS, TILE_FACES_MOST, TILE_NORMALS, TILE_PLANE,
  TILE_UNKNOWN_FACING,
} from './generated';
import { alongTile, isOneWay } from './tile';

/** What rounding may take off a way, metres. */
const SLACK: f32 = 1e-4;

/** Most of a product of two numbers between bounds. */
@inline
function mostOfProduct(a0: f32, a1: f32, b0: f32, b1: f32): f32 {
  return max<f32>(max<f32>(a0 * b0, a0 * b1), max<f32>(a1 * b0, a1 * b1));
}

/** How far a light hangs along a way, of three floats `step` bytes apart. */
@inline
function hangsAlong(light: usize, way: usize, step: usize): f32 {
  return (
    load<f32>(light) * load<f32>(way) +
    load<f32>(light + 4) * load<f32>(way + step) +
    load<f32>(light + 8) * load<f32>(way + 2 * step)
  );
}

/** Whether any land of a tile of some pixels lies in a light's beam and faces any of it. `tile`: as `readyTile` leaves it. */
export function canReach(light: usize, tile: usize, wide: i32, high: i32): bool {
  let forward: f32 = 0;
  let facing: f32 = 0;
  let away: f32 = 0;
  for (let c: usize = 0; c < 3; c++) {
    const place = load<f32>(light + 4 * c);
    const low = place - load<f32>(tile + 8 * c + 4);
    const high = place - load<f32>(tile + 8 * c);
    const faces = -load<f32>(light + LIGHT_FACES + 4 * c);
    forward += max<f32>(faces * low, faces * high);
    const normals = tile + TILE_NORMALS + 8 * c;
    facing += mostOfProduct(low, high, load<f32>(normals), load<f32>(normals + 4));
    const outside = max<f32>(0, max<f32>(low, -high));
    away += outside * outside;
  }
  if (load<f32>(tile + TILE_UNKNOWN_FACING) <= 0) {
    if (isOneWay(tile)) facing = hangsAlong(light, tile + TILE_NORMALS, 8) - load<f32>(tile + TILE_PLANE);
    if (facing < -load<f32>(light + LIGHT_RADIUS) - SLACK) return false;
  }
  if (load<f32>(light + LIGHT_EVEN) > 0) return true;
  if (forward < -SLACK || (forward + SLACK) ** 2 < load<f32>(light + LIGHT_BEAM) * away) return false;
  alongTile(tile, light + LIGHT_FACES, 4, wide, high);
  return load<f32>(tile + TILE_FACES_MOST) > hangsAlong(light, light + LIGHT_FACES, 4) - SLACK;
}
