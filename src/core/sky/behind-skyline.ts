import type { Rgb } from '../color/rgb';
import type { Camera } from '../geometry/camera';
import { dot, type Vec3 } from '../geometry/vec3';
import type { RgbPlanes } from '../plane/plane';
import type { Region } from '../plane/region';
import { hazeLength } from '../relief/haze-length';
import { addPoints } from './add-points';
import { createMoonDisc, forwardScatter, MOON_RADIUS, type MoonLook } from './moon-disc';
import { directionAt } from './direction';
import { directionRow, type SkyPlanes } from './sky-light';

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

export interface MoonWeights {
  toward: Vec3;
  look: MoonLook;
  /** Its bright land, as the film holds it. */
  disc: Rgb;
  /** Light that it sends to the scene, per cd/m2 of haze that gives all of it on: illuminance as light of the picture. */
  light: Rgb;
  /** Share of it that haze gives on, and that is left behind whole cloud. */
  haze: number;
}

/** How narrowly haze, and cloud, send the moon's light on. */
const FORWARD = { haze: 0.86, cloud: 0.72 } as const;

/** What thick cloud gives on of moonlight, and how quickly it lets nothing more through. */
const CLOUD_TAKES = 0.55;
const OPAQUE = 4;

/** How much of lamps' light from below a cloud near the horizon has against one overhead, and up to which sine of elevation. */
const UNDER = { low: 1.6, reach: 0.5 } as const;

/** What clouds let through of what stands behind them. */
export const throughCloud = (thick: number): number => Math.exp(-OPAQUE * thick) * (1 - thick);

export interface Behind {
  night: RgbPlanes;
  land: Float32Array;
  sky: SkyPlanes;
  points: Float32Array;
  count: number;
  starSize: number;
}

/**
 * The night with its sky behind the skyline: land's light by its coverage, the rest sky, moon and stars.
 *
 * @param out light of the picture, of the region
 */
export function behindSkyline(
  out: RgbPlanes,
  { night, land, sky, points, count, starSize }: Behind,
  { ambient, sky: perNit, under, mist, stars, moon }: SkyWeights,
  camera: Camera,
  region: Region,
): void {
  const toward = new Float64Array(3 * region.width);
  const pixel = 0.5 / (camera.focal * region.fullWidth);
  const disc = moon && createMoonDisc(moon.toward, moon.look, pixel);
  const nearMoon = moon ? Math.cos(Math.min(1.5, 1.2 * MOON_RADIUS * moon.look.size + 2 * pixel)) : 2;
  const clouds = sky.cloud.length > 0;
  const bare: SkyParts = [0, 0, 0];
  for (let y = 0; y < region.height; y++) {
    directionRow(toward, camera, region, y);
    for (let x = 0, i = y * region.width; x < region.width; x++, i++) {
      const own = land[i];
      if (own > 0.9999) {
        out.r[i] = ambient * night.r[i];
        out.g[i] = ambient * night.g[i];
        out.b[i] = ambient * night.b[i];
        continue;
      }
      const thick = clouds ? sky.cloud[i] : 0;
      bare[0] = perNit * sky.r[i];
      bare[1] = perNit * sky.g[i];
      bare[2] = perNit * sky.b[i];
      if (thick > 0) addUnder(bare, under, thick, toward[3 * x + 2]);
      if (moon && disc) {
        const to: Vec3 = [toward[3 * x], toward[3 * x + 1], toward[3 * x + 2]];
        addMoon(bare, moon, disc, nearMoon, to, thick);
      }
      const clear = mist.perMetre > 0 ? clearOf(mist.perMetre, toward[3 * x + 2]) : 1;
      out.r[i] = own * ambient * night.r[i] + (1 - own) * (clear * bare[0] + (1 - clear) * mist.color[0]);
      out.g[i] = own * ambient * night.g[i] + (1 - own) * (clear * bare[1] + (1 - clear) * mist.color[1]);
      out.b[i] = own * ambient * night.b[i] + (1 - own) * (clear * bare[2] + (1 - clear) * mist.color[2]);
    }
  }
  if (stars > 0) addPoints(out, points, count, starSize, stars, camera, region, (i) => left(i));

  /** What of a star is left behind land, clouds and haze. */
  function left(i: number): number {
    if (land[i] > 0.9999) return 0;
    const [x, y] = [i % region.width, Math.floor(i / region.width)];
    const at = {
      u: (region.left + x + 0.5) / region.fullWidth,
      v: (region.top + y + 0.5) / region.fullHeight,
    };
    const clear = mist.perMetre > 0 ? clearOf(mist.perMetre, directionAt(camera, at)[2]) : 1;
    return (1 - land[i]) * clear * (clouds ? throughCloud(sky.cloud[i]) : 1);
  }
}

/** What haze leaves of the sky toward a direction that rises by so much. */
const clearOf = (perMetre: number, rise: number) => Math.exp(-perMetre * hazeLength(rise));

type SkyParts = [r: number, g: number, b: number];

function addUnder(sum: SkyParts, under: Rgb, thick: number, rise: number): void {
  const low = 1 + (UNDER.low - 1) * Math.max(0, 1 - Math.max(0, rise) / UNDER.reach);
  for (let c = 0; c < 3; c++) sum[c] += under[c] * thick * low;
}

function addMoon(
  sum: SkyParts,
  { toward, disc, light, haze }: MoonWeights,
  brightness: (to: Vec3) => number,
  nearMoon: number,
  to: Vec3,
  thick: number,
): void {
  const cosine = dot(to, toward);
  const left = thick > 0 ? throughCloud(thick) : 1;
  // Thin cloud by the moon shines, thick cloud keeps the light to itself.
  const cloud =
    thick > 0 ? CLOUD_TAKES * thick * (0.35 + 0.65 * (1 - thick)) * forwardScatter(cosine, FORWARD.cloud) : 0;
  const sent = haze * forwardScatter(cosine, FORWARD.haze) + cloud;
  const own = cosine > nearMoon ? left * brightness(to) : 0;
  for (let c = 0; c < 3; c++) sum[c] += light[c] * sent + disc[c] * own;
}
