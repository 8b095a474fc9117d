import { LUMINANCE } from '../color/luminance';
import { times, type Rgb } from '../color/rgb';
import { domeIrradiance } from './dome-light';
import type { RgbPlanes } from '../plane/plane';
import { bilinearRow } from '../plane/bilinear-row';
import type { Region } from '../plane/region';
import type { Camera } from '../geometry/camera';
import { skyPlaceAt } from './direction';
import { createPictureLayer, type LaidPicture } from './sky-picture';
import type { Dome } from './twilight';

/** The sky behind the skyline before faders weigh it: cd/m2 of all but moon, stars and what lamps below give to clouds. */
export interface SkyPlanes extends RgbPlanes {
  /** How much cloud a pixel looks through, 0 to 1; none where no cloud is. */
  cloud: Float32Array;
}

/** How bright and how pale clouds are under the sky's own light: against level ground's mean, thick ones a little darker. */
const CLOUD = { bright: 0.85, thick: 0.35, own: 0.45 } as const;

/** How much brighter a town's light stands on clouds than in clear air. */
const TOWN_ON_CLOUDS = 2.2;

/** Most and least that the plate's own clouds change the sky. */
const OWN = { least: 0.3, most: 3 } as const;

/** Fills planes with a dome, at their own pixels. */
export function fillDome(
  out: RgbPlanes,
  camera: Camera,
  dome: Dome,
  { fullWidth, fullHeight, left, top }: Region,
): void {
  for (let y = 0, i = 0; y < out.height; y++) {
    for (let x = 0; x < out.width; x++, i++) {
      const at = { u: (left + x + 0.5) / fullWidth, v: (top + y + 0.5) / fullHeight };
      [out.r[i], out.g[i], out.b[i]] = dome(skyPlaceAt(camera, at));
    }
  }
}

/** Mean luminance of what level ground sees of a dome, by channel: what clouds are lit with from above. */
export const meanOfDome = (dome: Dome): Rgb => times(domeIrradiance(dome), 1 / Math.PI);

/** What the sky of a region is made of. */
export interface SkyParts {
  /** The clear twilight and the town's glow, of the whole plate at any size. */
  twilight: RgbPlanes;
  town: RgbPlanes;
  /** Mean light of the twilight: on clouds. */
  above: readonly [number, number, number];
  /** The plate's own sky, and its luminance without clouds, of the whole plate at any size. */
  broad: { width: number; height: number; data: Float32Array };
  own: number;
  /** A picture of one's own, and the mean luminance of the hour's sky that it is fitted to. */
  laid?: LaidPicture;
  mean: number;
  /** Clouds of the whole plate at any size. */
  cloud?: { width: number; height: number; data: Float32Array };
}

/** From this coverage on land hides all sky. */
export const ALL_LAND = 0.9999;

/** Sums up the sky of a region where land leaves any: a clear dome, the plate's own clouds on it by a share, clouds before it. */
export function skyLight(
  out: SkyPlanes,
  plate: RgbPlanes,
  land: Float32Array,
  parts: SkyParts,
  region: Region,
): void {
  const { twilight, town, above, broad, own, laid, mean, cloud } = parts;
  const aspect = region.fullWidth / region.fullHeight;
  const layPicture = laid && createPictureLayer(laid, aspect, mean);
  const clear = new Float64Array(3);
  const row = () => new Float32Array(region.width);
  const sky = { r: row(), g: row(), b: row() };
  const lamps = { r: row(), g: row(), b: row() };
  const [smooth, density] = [row(), row()];
  for (let y = 0; y < region.height; y++) {
    if (!leavesSky(land, y * region.width, region.width)) continue;
    const v = (region.top + y + 0.5) / region.fullHeight;
    for (const c of ['r', 'g', 'b'] as const) {
      bilinearRow(sky[c], { width: twilight.width, height: twilight.height, data: twilight[c] }, region, y);
      bilinearRow(lamps[c], { width: town.width, height: town.height, data: town[c] }, region, y);
    }
    bilinearRow(smooth, broad, region, y);
    if (cloud) bilinearRow(density, cloud, region, y);
    for (let x = 0, i = y * region.width; x < region.width; x++, i++) {
      if (land[i] >= ALL_LAND) continue;
      const day = LUMINANCE[0] * plate.r[i] + LUMINANCE[1] * plate.g[i] + LUMINANCE[2] * plate.b[i];
      const told = Math.min(OWN.most, Math.max(OWN.least, day / Math.max(1e-4, smooth[x])));
      const factor = own === 0 ? 1 : told ** own;
      const thick = density[x];
      const onCloud = CLOUD.bright * (1 - CLOUD.thick * thick);
      const fromTown = TOWN_ON_CLOUDS * (0.6 + 0.4 * thick);
      clear[0] = factor * (sky.r[x] + lamps.r[x]);
      clear[1] = factor * (sky.g[x] + lamps.g[x]);
      clear[2] = factor * (sky.b[x] + lamps.b[x]);
      layPicture?.(clear, (region.left + x + 0.5) / region.fullWidth, v);
      out.r[i] = cloudy(clear[0], sky.r[x], lamps.r[x], above[0], thick, onCloud, fromTown);
      out.g[i] = cloudy(clear[1], sky.g[x], lamps.g[x], above[1], thick, onCloud, fromTown);
      out.b[i] = cloudy(clear[2], sky.b[x], lamps.b[x], above[2], thick, onCloud, fromTown);
      if (cloud) out.cloud[i] = thick;
    }
  }
}

/** Whether land leaves any sky in a row. */
function leavesSky(land: Float32Array, first: number, width: number): boolean {
  for (let i = first; i < first + width; i++) if (land[i] < ALL_LAND) return true;
  return false;
}

/** A channel of the sky with clouds before it, which are lit by the whole dome and by what stands behind them. */
function cloudy(
  clear: number,
  sky: number,
  town: number,
  above: number,
  thick: number,
  onCloud: number,
  fromTown: number,
): number {
  if (thick === 0) return clear;
  const clouds = onCloud * (CLOUD.own * sky + (1 - CLOUD.own) * above) + fromTown * town;
  return (1 - thick) * clear + thick * clouds;
}
