import { createNoise2D } from 'simplex-noise';
import { seeded } from '../fixture/seeded';
import type { Camera } from '../geometry/camera';
import { bilinearRow } from '../plane/bilinear-row';
import { clamp } from '../plane/clamp';
import type { Plane } from '../plane/plane';
import type { Region } from '../plane/region';
import { smoothStep } from '../plane/smooth-step';
import { createDirectionRow, directionRow } from './direction-row';
import { ALL_LAND } from './sky-light';

/** Clouds on a layer over the scene. */
export interface CloudSettings {
  /** Share of the sky that they cover, 0 none, 1 all. */
  cover: number;
  /** How softly they end, 0 to 1. */
  soft: number;
  /** Their size against ordinary ones, and their height over the ground in metres. */
  size: number;
  height: number;
  /** How far the wind has carried them, kilometres. */
  drift: number;
  seed: number;
}

/** Breadth of an ordinary cloud, metres. */
const BREADTH = 1500;

const OCTAVES = 5;

/** How much finer each octave is. Not 2, so that their grids never meet. */
const FINER = 2.07;

/** How far places are moved by broad noise before they are looked up, in breadths: edges curl. */
const WARP = 0.35;

/** Distance at which haze has made clouds one sheet, metres. */
const ONE_SHEET = 30_000;

/** Noise from its lowest to its highest; almost all of it lies within. */
const SPAN = 0.62;

/** From this share of cover on the last gaps close. */
const CLOSES = 0.9;

/** Least rise of a ray that meets clouds. */
const LEAST_RISE = 0.012;

/**
 * How much cloud each pixel of a region looks through, 0 to 1: warped fractal noise (simplex, five octaves) on a level layer that rays
 * meet, so that clouds run together toward the horizon. Octaves finer than a pixel are left out.
 *
 * @param land a small copy of where surely is no sky: there nothing is made
 */
export function cloudCover(
  out: Float32Array,
  camera: Camera,
  region: Region,
  settings: CloudSettings,
  land: Plane,
): void {
  const thickness = createThickness(settings, 1 / (camera.focal * region.fullWidth));
  const toward = createDirectionRow(region.width);
  const hidden = new Float32Array(region.width);
  for (let y = 0, i = 0; y < region.height; y++) {
    directionRow(toward, camera, region, y);
    bilinearRow(hidden, land, region, y);
    for (let x = 0; x < region.width; x++, i++)
      out[i] = hidden[x] > ALL_LAND ? 0 : thickness(toward.x[x], toward.y[x], toward.z[x]);
  }
}

/** How much cloud a ray along a unit vector meets. @param pixel angle of a pixel, radians */
function createThickness({ cover, soft, size, height, drift, seed }: CloudSettings, pixel: number) {
  const random = seeded(seed);
  const [noise, broad] = [createNoise2D(random), createNoise2D(random)];
  const scale = 1 / (BREADTH * size);
  const threshold = SPAN * (1 - 2 * cover);
  const edge = 0.04 + 0.5 * soft;
  const closed = smoothStep(CLOSES, 1, cover);
  return (aside: number, ahead: number, up: number): number => {
    if (cover === 0) return 0;
    const rise = Math.max(up, LEAST_RISE);
    const way = height / rise;
    const across = scale * (aside * way + 1000 * drift);
    const along = scale * ahead * way;
    // A pixel covers more of the layer the lower it is looked at.
    const covers = (scale * way * pixel) / rise;
    const warped = WARP * broad(0.4 * across, 0.4 * along);
    let sum = 0;
    let fine = 1;
    let share = 0.5;
    for (let k = 0; k < OCTAVES; k++, fine *= FINER, share *= 0.5) {
      const kept = 1 - smoothStep(0.2, 0.6, covers * fine);
      if (kept === 0) break;
      sum += share * kept * noise(fine * (across + warped), fine * (along - warped) + 17 * k);
    }
    const told = smoothStep(threshold - edge, threshold + edge, sum);
    const far = 1 - Math.exp(-way / ONE_SHEET);
    return clamp(Math.max(closed, told + far * (cover - told)), 0, 1);
  };
}
