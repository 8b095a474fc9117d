import { OCCLUDER_WALL_END, OCCLUDER_WALL_SIDE_LEAST, OCCLUDER_WALL_SIDE_MOST, ON_WALL, TILE_LIST } from './generated';
import { LATTICE_LAND, LATTICE_RAYS, LATTICE_REACH, LATTICE_ROWS, LATTICE_WIDTH } from './lattice';
import { seenPast } from './occlusion';

const LANES = f32x4(0, 1, 2, 3);

/** How much of a light a tile sees. */
export const SEES_NOTHING: i32 = 0;
export const SEES_ALL: i32 = 1;
export const SEES_PART: i32 = 2;

/**
 * How much the land of a tile sees of a light past what is near, told at its lattice: walls and decks are so large that nothing of
 * them lies between. Past standees and walls that end at mattes it is said to see a part.
 */
export function sightOfLattice(lattice: usize, occluders: usize, near: usize, x: f32, y: f32, z: f32, radius: f32): i32 {
  if (load<u32>(near + 8) > 0) return SEES_PART;
  for (let k: usize = 0; k < <usize>load<u32>(near); k++) {
    const wall = <usize>load<u32>(near + TILE_LIST + (k << 2));
    if (load<u32>(wall + OCCLUDER_WALL_END) != 0) return SEES_PART;
    // Along its foot a wall's shadow begins with a line.
    const least = load<f32>(wall + OCCLUDER_WALL_SIDE_LEAST);
    const most = load<f32>(wall + OCCLUDER_WALL_SIDE_MOST);
    if (least < 0 && most > 0 && max<f32>(-least, most) > ON_WALL) return SEES_PART;
  }
  const rays = lattice + LATTICE_RAYS;
  const step = f32x4.mul(LANES, f32x4.splat(load<f32>(rays + 12)));
  const stepY = f32x4.mul(LANES, f32x4.splat(load<f32>(rays + 16)));
  const stepZ = f32x4.mul(LANES, f32x4.splat(load<f32>(rays + 20)));
  let dark = true;
  let bright = true;
  for (let j = 0; j < LATTICE_ROWS; j++) {
    for (let i = 0; i < LATTICE_WIDTH; i += 4) {
      const at = <usize>(j * LATTICE_WIDTH + i) << 2;
      const isLand = f32x4.gt(v128.load(lattice + LATTICE_LAND + at), f32x4.splat(0));
      if (!v128.any_true(isLand)) continue;
      const reach = v128.load(lattice + LATTICE_REACH + at);
      const seenX = f32x4.mul(f32x4.add(f32x4.splat(rayAt(rays, 0, i, j)), step), reach);
      const seenY = f32x4.mul(f32x4.add(f32x4.splat(rayAt(rays, 4, i, j)), stepY), reach);
      const seenZ = f32x4.mul(f32x4.add(f32x4.splat(rayAt(rays, 8, i, j)), stepZ), reach);
      const lx = f32x4.sub(f32x4.splat(x), seenX);
      const ly = f32x4.sub(f32x4.splat(y), seenY);
      const lz = f32x4.sub(f32x4.splat(z), seenZ);
      const seen = seenPast(occluders, near, seenX, seenY, seenZ, lx, ly, lz, radius);
      dark = dark && !v128.any_true(v128.and(isLand, f32x4.ne(seen, f32x4.splat(0))));
      bright = bright && !v128.any_true(v128.and(isLand, f32x4.ne(seen, f32x4.splat(1))));
      if (!dark && !bright) return SEES_PART;
    }
  }
  return dark ? SEES_NOTHING : SEES_ALL;
}

@inline
function rayAt(rays: usize, c: usize, i: i32, j: i32): f32 {
  return load<f32>(rays + c) + <f32>i * load<f32>(rays + c + 12) + <f32>j * load<f32>(rays + c + 24);
}
