import type { Rgb } from '../color/rgb';
import type { Camera } from '../geometry/camera';
import type { Vec3 } from '../geometry/vec3';
import { hazeLength } from '../relief/haze-length';
import type { RgbPlanes } from '../plane/plane';
import type { Region } from '../plane/region';
import { addPoints } from './add-points';
import { createDirectionRow, directionRow, type DirectionRow } from './direction-row';
import { createMoonDisc, forwardScatter, MOON_RADIUS, type MoonGround, type MoonLook } from './moon-disc';
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

export interface MoonWeights {
  toward: Vec3;
  look: MoonLook;
  /** Its bright land, as the film holds it. */
  disc: Rgb;
  /** Light that it sends to the scene: illuminance as light of the picture, which haze and cloud give on per steradian. */
  light: Rgb;
  /** Share of it that haze gives on. */
  haze: number;
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
const FORWARD = { haze: 0.86, cloud: 0.72 } as const;

/** What thick cloud gives on of moonlight, and how quickly it lets nothing more through. */
const CLOUD_TAKES = 0.55;
const OPAQUE = 4;

/** How much of lamps' light from below a cloud near the horizon has against one overhead, and up to which sine of elevation. */
const UNDER = { low: 1.6, reach: 0.5 } as const;

/** Entries of a table over how thick clouds are. */
const THICKS = 1024;

/** What clouds let through of what stands behind them. */
export const throughCloud = (thick: number): number => Math.exp(-OPAQUE * thick) * (1 - thick);

/** What is told once for all of a picture. */
export interface SkyTables {
  /** What haze leaves of the sky toward directions that rise by so much, by the sine of their elevation. */
  clear: Float64Array;
  /** What clouds let through, by how thick they are. */
  passing: Float64Array;
}

export const createSkyTables = ({ mist }: SkyWeights): SkyTables => ({
  clear: Float64Array.from({ length: RISES }, (_, k) =>
    Math.exp(-mist.perMetre * hazeLength((k + 0.5) / RISES)),
  ),
  passing: Float64Array.from({ length: THICKS + 1 }, (_, k) => throughCloud(k / THICKS)),
});

/**
 * The night with its sky behind the skyline: land's light by its coverage, the rest sky, moon and stars.
 *
 * @param out light of the picture, of the region
 */
export function behindSkyline(
  out: RgbPlanes,
  behind: Behind,
  weights: SkyWeights,
  { clear, passing }: SkyTables,
  ground: MoonGround,
  camera: Camera,
  region: Region,
): void {
  const { night, land, sky, points, count, starSize } = behind;
  const { ambient, sky: perNit, under, mist, stars } = weights;
  const toward = createDirectionRow(region.width);
  const row = createSkyRow(region.width);
  const pixel = 0.5 / (camera.focal * region.fullWidth);
  const addMoon = weights.moon && createMoonRow(weights.moon, passing, ground, pixel);
  for (let y = 0; y < region.height; y++) {
    const first = y * region.width;
    if (!bareRow(row, land, first)) {
      landRow(out, night, first, region.width, ambient);
      continue;
    }
    directionRow(toward, camera, region, y);
    skyRow(row, sky, first, perNit, under, toward);
    addMoon?.(row, toward);
    if (mist.perMetre > 0) veil(row, toward, mist.color, clear);
    joinRow(out.r, night.r, row.r, row.bare, first, ambient);
    joinRow(out.g, night.g, row.g, row.bare, first, ambient);
    joinRow(out.b, night.b, row.b, row.bare, first, ambient);
  }
  if (stars > 0) {
    const left = leftOfStars(behind, clear, camera, region);
    addPoints(out, points, count, starSize, stars, camera, region, left);
  }
}

/** A row of sky in the making. */
interface SkyRow {
  r: Float64Array;
  g: Float64Array;
  b: Float64Array;
  /** What land leaves of the sky, and how much cloud is before it. */
  bare: Float64Array;
  thick: Float64Array;
}

const createSkyRow = (width: number): SkyRow => {
  const row = () => new Float64Array(width);
  return { r: row(), g: row(), b: row(), bare: row(), thick: row() };
};

/** What land leaves of the sky in a row. Returns whether it leaves any. */
function bareRow({ bare }: SkyRow, land: Float32Array, first: number): boolean {
  let most = 0;
  for (let x = 0; x < bare.length; x++) {
    const own = land[first + x];
    bare[x] = own < ALL_LAND ? 1 - own : 0;
    if (bare[x] > most) most = bare[x];
  }
  return most > 0;
}

/** The sky of a row, and what lamps give to its clouds. */
function skyRow(
  { r, g, b, bare, thick }: SkyRow,
  sky: SkyPlanes,
  first: number,
  perNit: number,
  under: Rgb,
  { z }: DirectionRow,
): void {
  const clouds = sky.cloud.length > 0;
  for (let x = 0, i = first; x < bare.length; x++, i++) {
    if (bare[x] === 0) continue;
    thick[x] = clouds ? sky.cloud[i] : 0;
    const low = thick[x] * (1 + (UNDER.low - 1) * Math.max(0, 1 - Math.max(0, z[x]) / UNDER.reach));
    r[x] = perNit * sky.r[i] + low * under[0];
    g[x] = perNit * sky.g[i] + low * under[1];
    b[x] = perNit * sky.b[i] + low * under[2];
  }
}

/** A row of land alone. */
function landRow(out: RgbPlanes, night: RgbPlanes, first: number, width: number, ambient: number): void {
  for (const c of ['r', 'g', 'b'] as const) {
    const lit = out[c].subarray(first, first + width);
    lit.set(night[c].subarray(first, first + width));
    if (ambient !== 1) for (let x = 0; x < width; x++) lit[x] *= ambient;
  }
}

/** Land and sky of a channel of a row. */
function joinRow(
  out: Float32Array,
  night: Float32Array,
  sky: Float64Array,
  bare: Float64Array,
  first: number,
  ambient: number,
): void {
  for (let x = 0, i = first; x < bare.length; x++, i++) {
    const lit = ambient * night[i];
    out[i] = bare[x] > 0 ? lit + bare[x] * (sky[x] - lit) : lit;
  }
}

/** What adds the moon's disc and the light around it to a row. */
function createMoonRow(
  { toward, look, disc, light, haze }: MoonWeights,
  passing: Float64Array,
  ground: MoonGround,
  pixel: number,
) {
  const brightness = createMoonDisc(toward, look, pixel, ground);
  const near = Math.cos(Math.min(1.5, 1.2 * MOON_RADIUS * look.size + 2 * pixel));
  return ({ r, g, b, bare, thick }: SkyRow, { x: tx, y: ty, z: tz }: DirectionRow): void => {
    const [mx, my, mz] = toward;
    const [lr, lg, lb] = light;
    for (let x = 0; x < bare.length; x++) {
      if (bare[x] === 0) continue;
      const cosine = tx[x] * mx + ty[x] * my + tz[x] * mz;
      const cover = thick[x];
      // Thin cloud by the moon shines, thick cloud keeps the light to itself.
      const cloud = CLOUD_TAKES * cover * (1 - 0.65 * cover);
      const sent =
        haze * forwardScatter(cosine, FORWARD.haze) + cloud * forwardScatter(cosine, FORWARD.cloud);
      r[x] += lr * sent;
      g[x] += lg * sent;
      b[x] += lb * sent;
      if (cosine < near) continue;
      const own = passing[(cover * THICKS) | 0] * brightness([tx[x], ty[x], tz[x]]);
      r[x] += disc[0] * own;
      g[x] += disc[1] * own;
      b[x] += disc[2] * own;
    }
  };
}

/** Entries of a table over the sines of elevations, 0 to 1. */
const RISES = 2048;

/** The place of a sine of elevation in such a table. */
const riseAt = (rise: number) => (rise <= 0 ? 0 : Math.min(RISES - 1, (rise * RISES) | 0));

function veil({ r, g, b, bare }: SkyRow, { z }: DirectionRow, color: Rgb, clear: Float64Array): void {
  for (let x = 0; x < r.length; x++) {
    if (bare[x] === 0) continue;
    const left = clear[riseAt(z[x])];
    r[x] = left * r[x] + (1 - left) * color[0];
    g[x] = left * g[x] + (1 - left) * color[1];
    b[x] = left * b[x] + (1 - left) * color[2];
  }
}

/** What of a star's light a pixel gets from behind land, clouds and haze. */
function leftOfStars(
  { land, sky }: Behind,
  clear: Float64Array,
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
    return bare * clear[riseAt((corner[2] + u * across[2] + v * down[2]) / Math.sqrt(square))];
  };
}
