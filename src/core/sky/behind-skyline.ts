import type { Rgb } from '../color/rgb';
import type { Camera } from '../geometry/camera';
import { hazeLength } from '../relief/haze-length';
import type { RgbPlanes } from '../plane/plane';
import type { Region } from '../plane/region';
import { addMoonDisc, type MoonWeights } from './add-moon-disc';
import { addPoints } from './add-points';
import { createDirectionRow, directionRow } from './direction-row';
import { forwardScatter, type MoonGround } from './moon-disc';
import { ALL_LAND, type SkyPlanes } from './sky-light';

/** What the sky is weighed with: all of it light of the picture. */
export interface SkyWeights {
  /** On the night's own light on land. */
  ambient: number;
  /** Per cd/m2 of the sky. */
  sky: number;
  /** What lamps below give to a whole cloud overhead. */
  under: Rgb;
  /** Haze before it: its light, and how quickly it takes what lies behind, per metre. */
  mist: { color: Rgb; perMetre: number };
  /** Per cd/m2 of stars. */
  stars: number;
  moon?: MoonWeights;
}

/** What stands where, of a region. */
export interface Behind {
  night: RgbPlanes;
  land: Float32Array;
  sky: SkyPlanes;
  /** Points of stars, how many, and how broad their images are as a fraction of the width. */
  points: Float32Array;
  count: number;
  starSize: number;
}

/** How narrowly haze, and cloud, send the moon's light on. */
export const FORWARD = { haze: 0.86, cloud: 0.72 } as const;

/** What thick cloud gives on of moonlight, how much less of it the thickest does, and how quickly it lets nothing more through. */
export const CLOUD_TAKES = 0.55;
export const CLOUD_KEEPS = 0.65;
const OPAQUE = 4;

/** How much of lamps' light from below a cloud near the horizon has against one overhead, and up to which sine of elevation. */
export const UNDER = { low: 1.6, reach: 0.5 } as const;

/** What clouds let through of what stands behind them. */
export const throughCloud = (thick: number): number => Math.exp(-OPAQUE * thick) * (1 - thick);

/** Joins land and sky of a region: see `joinSky`. */
export type JoinSky = (
  out: RgbPlanes,
  behind: Behind,
  weights: SkyWeights,
  camera: Camera,
  region: Region,
) => void;

/**
 * The night with its sky behind the skyline: land's light by its coverage, the rest sky, moon and stars.
 *
 * @param out light of the picture, of the region
 * @param join what does all but the moon's disc and the stars
 */
export function behindSkyline(
  out: RgbPlanes,
  behind: Behind,
  weights: SkyWeights,
  ground: MoonGround,
  camera: Camera,
  region: Region,
  join: JoinSky = joinSky,
): void {
  const { points, count, starSize } = behind;
  join(out, behind, weights, camera, region);
  const left = leftOfFar(behind, weights, camera, region);
  if (weights.moon) addMoonDisc(out, weights.moon, ground, camera, region, left);
  if (weights.stars > 0) addPoints(out, points, count, starSize, weights.stars, camera, region, left);
}

/** What haze leaves of the sky toward directions that rise by so much, sine of their elevation. */
const leftByHaze = (perMetre: number, rise: number) => Math.exp(-perMetre * hazeLength(rise));

/** Land and sky by coverage: clouds with what lamps below and the moon give to them, and haze before it all. */
export const joinSky: JoinSky = (out, { night, land, sky }, weights, camera, region) => {
  const { ambient, sky: perNit, under, mist, moon } = weights;
  const toward = createDirectionRow(region.width);
  const moonlight = moon && createMoonlight(moon);
  const clouds = sky.cloud.length > 0;
  for (let y = 0, i = 0; y < region.height; y++) {
    directionRow(toward, camera, region, y);
    for (let x = 0; x < region.width; x++, i++) {
      const bare = land[i] < ALL_LAND ? 1 - land[i] : 0;
      const [tx, ty, tz] = [toward.x[x], toward.y[x], toward.z[x]];
      const thick = clouds ? sky.cloud[i] : 0;
      const low = thick * (1 + (UNDER.low - 1) * Math.max(0, 1 - Math.max(0, tz) / UNDER.reach));
      const sent = bare > 0 && moonlight ? moonlight(tx, ty, tz, thick) : 0;
      const left = bare > 0 ? leftByHaze(mist.perMetre, tz) : 0;
      CHANNELS.forEach((channel, c) => {
        const lit = ambient * night[channel][i];
        const own = perNit * sky[channel][i] + low * under[c] + (moon ? sent * moon.light[c] : 0);
        const seen = left * own + (1 - left) * mist.color[c];
        out[channel][i] = bare > 0 ? lit + bare * (seen - lit) : lit;
      });
    }
  }
};

const CHANNELS = ['r', 'g', 'b'] as const;

/** What haze and cloud give on of the moon's light toward a direction, per steradian. */
function createMoonlight({ toward: [mx, my, mz], haze }: MoonWeights) {
  return (x: number, y: number, z: number, cover: number): number => {
    const cosine = x * mx + y * my + z * mz;
    // Thin cloud by the moon shines, thick cloud keeps the light to itself.
    const cloud = CLOUD_TAKES * cover * (1 - CLOUD_KEEPS * cover);
    return haze * forwardScatter(cosine, FORWARD.haze) + cloud * forwardScatter(cosine, FORWARD.cloud);
  };
}

/** What a pixel gets of the light of what is farther than all, from behind land, clouds and haze. */
function leftOfFar(
  { land, sky }: Behind,
  { mist }: SkyWeights,
  { corner, across, down }: Camera,
  { left, top, width, fullWidth, fullHeight }: Region,
) {
  const clouds = sky.cloud.length > 0;
  return (i: number): number => {
    if (land[i] >= ALL_LAND) return 0;
    const bare = (1 - land[i]) * (clouds ? throughCloud(sky.cloud[i]) : 1);
    const u = (left + (i % width) + 0.5) / fullWidth;
    const v = (top + Math.floor(i / width) + 0.5) / fullHeight;
    let square = 0;
    for (let c = 0; c < 3; c++) square += (corner[c] + u * across[c] + v * down[c]) ** 2;
    return bare * leftByHaze(mist.perMetre, (corner[2] + u * across[2] + v * down[2]) / Math.sqrt(square));
  };
}
