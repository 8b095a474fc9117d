import { LUMINANCE } from '../color/luminance';
import type { RgbPlanes } from '../plane/plane';
import type { Camera } from '../geometry/camera';
import { lineCoverageAt } from '../plane/line-coverage-at';
import { FARTHEST_GROUND } from '../geometry/ground';
import { FINISHES } from '../plan/finishes';
import type { Relief } from './relief-planes';
import type { ReliefRow } from './relief-row';
import { rippleNormal } from './ripple';
import type { Surfaces } from './relief-surfaces';

/** A row of the survey's local lines of the plate's lightness, for ground, for sky and for water on the ground. */
export interface FoundRow {
  ground: Float32Array;
  groundOffset: Float32Array;
  sky: Float32Array;
  skyOffset: Float32Array;
  water?: { slope: Float32Array; offset: Float32Array };
}

/**
 * Where the things stand that the survey found in the columns of a row, and the rays that see their feet.
 *
 * @param feet where things stand, fractions of the plate's height
 */
export function footRow(row: ReliefRow, feet: Float32Array, { down, eyeHeight }: Camera): void {
  const { width, v, ahead, rise, standsAt, footRise } = row;
  for (let x = 0; x < width; x++) {
    const lower = feet[x] - v;
    const footAhead = Math.max(ahead[x] + lower * down[1], 1e-6);
    footRise[x] = rise[x] + lower * down[2];
    standsAt[x] =
      footRise[x] < 0 ? Math.min((-eyeHeight / footRise[x]) * footAhead, FARTHEST_GROUND) : FARTHEST_GROUND;
  }
}

/** Lays a row of what the survey found: ground, and over it what stands upright where its foot meets the ground, as `footRow` says. */
export function rasterizeGround(
  out: Relief,
  row: ReliefRow,
  { r, g, b }: RgbPlanes,
  found: FoundRow,
  { eyeHeight }: Pick<Camera, 'eyeHeight'>,
  { ground: finish, wet }: Pick<Surfaces, 'ground' | 'wet'>,
): void {
  const { first } = row;
  const { reach, normalX, normalY, normalZ, unknownFacing, land: lands, sheen, alpha } = out;
  const [wr, wg, wb] = LUMINANCE;
  const { water: waters } = found;
  const calm = FINISHES.water;
  for (let x = 0; x < row.width; x++) {
    const i = first + x;
    const light = wr * r[i] + wg * g[i] + wb * b[i];
    const rise = row.rise[x];
    const ahead = row.ahead[x];
    const nearness = rise < 0 ? Math.max(-rise / eyeHeight, ahead / FARTHEST_GROUND) : 0;
    const ground = nearness > 0 ? lineCoverageAt(found.ground[x], found.groundOffset[x], light) : 0;
    const rest = 1 - ground;
    const norm = Math.sqrt(ground * ground + rest * rest);
    const land = 1 - lineCoverageAt(found.sky[x], found.skyOffset[x], light);
    row.ground[x] = ground;
    row.land[x] = land;
    reach[i] = 1 / (ground * nearness + rest * (ahead / row.standsAt[x]));
    normalX[i] = 0;
    normalY[i] = -rest / norm;
    normalZ[i] = ground / norm;
    unknownFacing[i] = rest;
    // On the fringe of the sky a lit rim would show, and a dark one does not.
    lands[i] = Math.max(0, 2 * land - 1);
    const water = waters ? lineCoverageAt(waters.slope[x], waters.offset[x], light) : 0;
    const roughness = finish.roughness + water * (calm.roughness - finish.roughness);
    const dry = ground * finish.sheen * (wet ? wet[i] : 1);
    sheen[i] = dry + water * (ground * calm.sheen - dry);
    alpha[i] = roughness * roughness;
    const ripple = ground * (finish.crease + water * (calm.crease - finish.crease));
    if (ripple > 0) rippleNormal(out, i, ripple * row.foldRight[x], ripple * row.foldUp[x]);
  }
}
