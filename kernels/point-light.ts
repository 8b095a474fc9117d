import { LIGHT_BYTES, TILE_HEIGHT, TILE_WIDTH } from './generated';
import {
  fillTile, isGentle, isImageFar, LATTICE_BYTES, LATTICE_LIT, LATTICE_RAYS, LATTICE_ROWS,
  LATTICE_TILE, LATTICE_WIDTH, readyLattice, SMOOTH_LAND, SMOOTH_REACH,
} from './lattice';
import { SEES_ALL, SEES_NOTHING, SEES_PART, sightOfLattice } from './lattice-sight';
import { lightTile } from './light-tile';
import { gatherNear } from './near-occluders';
import { canReach } from './reached';
import { readyTile, sidesOfTile, TILE_BYTES } from './tile';

/* Light of small sources on a band of a region, tile after tile: each light where it reaches, and where it is smooth on a lattice. */

/** From so many lights on a lattice takes less time than it saves. */
const LATTICE_LIGHTS: i32 = 3;

/**
 * Adds the spill and air of sources to rows of a region, and what surfaces mirror of them where there is a plane for it. `width` is
 * at least 4. `lit`: a record of where the region's planes begin; `rays`: ray at the first pixel's middle (3), ray step to the
 * right (3), ray step down (3). A light of `lights` is 20 floats: place from the eye (3), spill candela, air candela over 4 pi,
 * squared radius, radius, where it faces (3), 1 where it shines evenly, its focus, its cut-off, 1 where it faces anywhere, square
 * of the cosine at which its beam ends, how far before its plane it lights anything, and the pixel at which it is seen (2).
 * `from` and `to` count rows. `occluders`: what casts shadows, or 0. `scratch` has room for a tile, a lattice and a list of all
 * that casts shadows. `mayThin`: whether smooth tiles are lit on a lattice.
 */
export function addPointLights(
  lit: usize,
  rays: usize,
  lights: usize,
  count: i32,
  occluders: usize,
  scratch: usize,
  mayThin: bool,
  width: i32,
  from: i32,
  to: i32,
): void {
  const lattice = scratch + TILE_BYTES;
  const near = lattice + LATTICE_BYTES;
  for (let top = from; top < to; top += TILE_HEIGHT) {
    const bottom = min<i32>(to, top + TILE_HEIGHT);
    for (let left = 0; left < width; left += TILE_WIDTH) {
      const right = min<i32>(width, left + TILE_WIDTH);
      const isLand = readyTile(scratch, lit, rays, width, left, right, top, bottom);
      if (isLand && occluders != 0) sidesOfTile(occluders, scratch, left, right, top, bottom);
      let smooth = 0;
      if (mayThin && count >= LATTICE_LIGHTS && right - left == TILE_WIDTH && bottom - top == TILE_HEIGHT) {
        smooth = readyLattice(lattice, lit, rays, width, left, top, isLand);
        if (smooth != 0) {
          readyTile(lattice + LATTICE_TILE, lattice + LATTICE_LIT, lattice + LATTICE_RAYS, LATTICE_WIDTH, 0, LATTICE_WIDTH, 0, LATTICE_ROWS);
        }
      }
      let spilt = false;
      let scattered = false;
      for (let k = 0; k < count; k++) {
        const light = lights + <usize>k * LIGHT_BYTES;
        const x = load<f32>(light);
        const y = load<f32>(light + 4);
        const z = load<f32>(light + 8);
        const radius = load<f32>(light + 24);
        const isLit = isLand && load<f32>(light + 12) > 0 && canReach(light, scratch, right - left, bottom - top);
        let seen = SEES_ALL;
        if (isLit && occluders != 0 && gatherNear(near, occluders, scratch, x, y, z, radius)) {
          seen = smooth != 0 ? sightOfLattice(lattice, occluders, near, x, y, z, radius) : SEES_PART;
        }
        const inAir = load<f32>(light + 16) > 0;
        const thinLand = isLit && (smooth & SMOOTH_LAND) != 0 && seen == SEES_ALL && isGentle(light, lattice, scratch);
        const thinAir = inAir && (smooth & SMOOTH_REACH) != 0 && isImageFar(light, left, right, top, bottom);
        if (thinLand || thinAir) {
          lightTile(
            lattice + LATTICE_LIT, lattice + LATTICE_RAYS, light, lattice + LATTICE_TILE, 0, near,
            thinLand, thinAir, LATTICE_WIDTH, 0, LATTICE_WIDTH, 0, LATTICE_ROWS,
          );
          spilt = spilt || thinLand;
          scattered = scattered || thinAir;
        }
        lightTile(
          lit, rays, light, scratch, seen == SEES_PART ? occluders : 0, near,
          isLit && !thinLand && seen != SEES_NOTHING, inAir && !thinAir, width, left, right, top, bottom,
        );
      }
      if (spilt || scattered) fillTile(lit, lattice, width, left, top, spilt, scattered);
    }
  }
}

