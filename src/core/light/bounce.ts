import { LUMINANCE } from '../color/luminance';
import { MIDDLE_GREY } from '../color/middle-grey';
import type { Camera } from '../geometry/camera';
import type { Relief } from '../relief/relief-planes';
import { cross, dot } from '../geometry/vec3';
import type { RgbPlanes } from '../plane/plane';
import type { Region } from '../plane/region';
import { hypot } from '../plane/hypot';

/** Floats a virtual light takes: place, normal, power over pi, and the area it stands for over pi. */
export const BOUNCE_STRIDE = 8;

/** Least cosine at which a pixel's area on its surface is told: at the horizon it has no bound. */
const GRAZING = 0.02;

/** Over this a surface counts as level, cosine between its normal and the vertical. */
const LEVEL = 0.7;

/** Mean of a cosine over all turns that face the eye. */
const MEAN_TURN = 2 / Math.PI;

/** The most that any place reflects. */
const MOST_REFLECTED = 0.85;

const INVERSE_PI = 1 / Math.PI;

/** Surfaces that lamps light, pixel by pixel of a region, and into how many blocks they are parted. */
export interface LitSurfaces {
  region: Region;
  relief: Relief;
  /** Illuminance, lux. */
  spill: Float32Array;
  /** What they look like by day. What is not seen is middle grey. */
  plate?: RgbPlanes;
  blocks: { columns: number; rows: number };
}

/** Sums of the lights of blocks: place, normal, what they give, and that times its area. */
const SUMS = 8;

/**
 * Lit surfaces as lights (virtual point lights, Keller 1997): one a block of pixels, where its flux is in the mean, so that
 * they move smoothly with a lamp. Returns how many of `out` are used.
 *
 * @param out BOUNCE_STRIDE floats a light; as many of them at most as there are blocks
 * @param medianLuminance of the land: what stands for middle grey
 * @param flux all that their lamps send out, lumens: surfaces take in no more, however roughly their area is known
 */
export function bounceLights(
  out: Float32Array,
  surfaces: readonly LitSurfaces[],
  camera: Camera,
  medianLuminance: number,
  flux: number,
): number {
  const summed = surfaces.map((lit) => sumBlocks(lit, camera, medianLuminance));
  const taken = summed.reduce((sum, own) => sum + own.taken, 0);
  const bound = Math.min(1, flux / Math.max(1e-9, taken));
  return summed.reduce((used, { sums, pixels }) => {
    const rest = out.subarray(BOUNCE_STRIDE * used);
    return used + lightsOfBlocks(rest, sums, bound, pixels);
  }, 0);
}

/** What the blocks of surfaces give on, SUMS numbers each, and what all of them take in, lumens. */
function sumBlocks(
  { region, relief, spill, plate, blocks: { columns, rows } }: LitSurfaces,
  { corner, across, down, eyeHeight }: Camera,
  medianLuminance: number,
): { sums: Float64Array; taken: number; pixels: number } {
  const { width, height, fullWidth, fullHeight } = region;
  const filmNormal = cross(across, down);
  const toFilm = Math.abs(dot(filmNormal, corner));
  let taken = 0;
  const sums = new Float64Array(SUMS * columns * rows);
  for (let y = 0, i = 0; y < height; y++) {
    const v = (region.top + y + 0.5) / fullHeight;
    const first = SUMS * columns * Math.floor((y * rows) / height);
    for (let x = 0; x < width; x++, i++) {
      if (spill[i] <= 0 || relief.land[i] <= 0) continue;
      const u = (region.left + x + 0.5) / fullWidth;
      const rx = corner[0] + u * across[0] + v * down[0];
      const ry = corner[1] + u * across[1] + v * down[1];
      const rz = corner[2] + u * across[2] + v * down[2];
      const ray = Math.sqrt(rx * rx + ry * ry + rz * rz);
      const [nx, ny, nz] = [relief.normalX[i], relief.normalY[i], relief.normalZ[i]];
      // What is level covers no more ground for its ripples.
      const toward = Math.abs(nz) > LEVEL ? Math.abs(rz) : Math.abs(rx * nx + ry * ny + rz * nz);
      const facing = toward / ray;
      const unknownFacing = relief.unknownFacing[i];
      const cosine = Math.max(GRAZING, facing * (1 - unknownFacing) + MEAN_TURN * unknownFacing);
      const reach = relief.reach[i];
      // The pixel's share of the film, seen from the eye, laid on the surface.
      const area = ((reach * reach * toFilm) / (ray * fullWidth * fullHeight)) * (1 / cosine);
      const took = spill[i] * relief.land[i] * area;
      const gives = (plate ? reflectanceAt(plate, i, medianLuminance) : MIDDLE_GREY) * took;
      taken += took;
      const at = first + SUMS * Math.floor((x * columns) / width);
      sums[at] += gives * rx * reach;
      sums[at + 1] += gives * ry * reach;
      sums[at + 2] += gives * (rz * reach + eyeHeight);
      sums[at + 3] += gives * nx;
      sums[at + 4] += gives * ny;
      sums[at + 5] += gives * nz;
      sums[at + 6] += gives;
      sums[at + 7] += gives * area;
    }
  }
  return { sums, taken, pixels: width * height };
}

/** What a pixel reflects, as far as the plate tells. */
function reflectanceAt({ r, g, b }: RgbPlanes, i: number, medianLuminance: number): number {
  const shown = LUMINANCE[0] * r[i] + LUMINANCE[1] * g[i] + LUMINANCE[2] * b[i];
  return Math.min(MOST_REFLECTED, (MIDDLE_GREY * shown) / medianLuminance);
}

/** Lights of the sums over blocks of `pixels`, a share `bound` of what they give. */
function lightsOfBlocks(out: Float32Array, sums: Float64Array, bound: number, pixels: number): number {
  const blocks = sums.length / SUMS;
  let used = 0;
  for (let at = 0; at < sums.length; at += SUMS) {
    const gives = sums[at + 6];
    if (!(gives > 0)) continue;
    const to = BOUNCE_STRIDE * used++;
    for (let c = 0; c < 3; c++) out[to + c] = sums[at + c] / gives;
    const long = Math.max(1e-6, hypot(sums[at + 3], sums[at + 4], sums[at + 5]));
    for (let c = 3; c < 6; c++) out[to + c] = sums[at + c] / long;
    out[to + 6] = bound * gives * INVERSE_PI;
    // As many pixels as a block has, each of about this area: what is nearer than that is not told apart.
    out[to + 7] = ((sums[at + 7] / gives) * pixels * INVERSE_PI) / blocks;
  }
  return used;
}

/**
 * Illuminance by virtual lights at the pixels of a region, lux. A light is never nearer than the patch that it stands for.
 */
export function gatherBounce(
  out: Float32Array,
  lights: Float32Array,
  used: number,
  relief: Relief,
  camera: Camera,
  region: Region,
): void {
  const { corner, across, down, eyeHeight } = camera;
  const end = used * BOUNCE_STRIDE;
  for (let y = 0, i = 0; y < region.height; y++) {
    const v = (region.top + y + 0.5) / region.fullHeight;
    for (let x = 0; x < region.width; x++, i++) {
      // The sky takes none.
      out[i] = 0;
      if (relief.land[i] <= 0) continue;
      const u = (region.left + x + 0.5) / region.fullWidth;
      const reach = relief.reach[i];
      const px = (corner[0] + u * across[0] + v * down[0]) * reach;
      const py = (corner[1] + u * across[1] + v * down[1]) * reach;
      const pz = (corner[2] + u * across[2] + v * down[2]) * reach + eyeHeight;
      const nx = relief.normalX[i];
      const ny = relief.normalY[i];
      const nz = relief.normalZ[i];
      const unknownFacing = relief.unknownFacing[i];
      let sum = 0;
      for (let k = 0; k < end; k += BOUNCE_STRIDE) {
        const lx = lights[k] - px;
        const ly = lights[k + 1] - py;
        const lz = lights[k + 2] - pz;
        const leaving = -(lx * lights[k + 3] + ly * lights[k + 4] + lz * lights[k + 5]);
        if (leaving <= 0) continue;
        const level = lx * lx + ly * ly;
        const facing = lx * nx + ly * ny + lz * nz;
        let arriving = facing > 0 ? facing : 0;
        if (unknownFacing > 0) {
          const turned = Math.max(0, (Math.sqrt(level) + facing) * INVERSE_PI);
          arriving += unknownFacing * (turned - arriving);
        }
        if (arriving === 0) continue;
        const d2 = level + lz * lz;
        sum += (lights[k + 6] * leaving * arriving) / (Math.max(1e-9, d2) * (d2 + lights[k + 7]));
      }
      out[i] = sum * relief.land[i];
    }
  }
}
