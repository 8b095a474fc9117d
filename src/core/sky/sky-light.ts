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
export const CLOUD = { bright: 0.85, thick: 0.35, own: 0.45 } as const;

/** How much brighter a town's light stands on thick clouds than in clear air, and what of that thin ones have. */
export const TOWN_ON_CLOUDS = { light: 2.2, thin: 0.6 } as const;

/** Most and least that the plate's own clouds change the sky. */
export const OWN = { least: 0.3, most: 3 } as const;

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

/** A row of sky in the making. */
interface SkyRow {
  /** The clear sky: first the hour's twilight, and what is seen of it; the town's glow. */
  twilight: Channels;
  town: Channels;
  seen: Channels;
  /** What the plate's own clouds change, and how thick made ones are. */
  factor: Float32Array;
  thick: Float32Array;
}

type Channels = Record<'r' | 'g' | 'b', Float32Array>;

const CHANNELS = ['r', 'g', 'b'] as const;

/** Sums up the sky of a region where land leaves any: a clear dome, the plate's own clouds on it by a share, clouds before it. */
export function skyLight(
  out: SkyPlanes,
  plate: RgbPlanes,
  land: Float32Array,
  parts: SkyParts,
  region: Region,
): void {
  const { twilight, town, above, broad, own, laid, mean, cloud } = parts;
  const { width } = region;
  const layPicture = laid && createPictureLayer(laid, region.fullWidth / region.fullHeight, mean);
  const row = createSkyRow(width);
  for (let y = 0; y < region.height; y++) {
    const first = y * width;
    if (!leavesSky(land, first, width)) continue;
    if (own === 0) row.factor.fill(1);
    else ownClouds(row.factor, plate, land, broad, own, region, y);
    for (const c of CHANNELS) {
      bilinearRow(row.twilight[c], { ...twilight, data: twilight[c] }, region, y);
      bilinearRow(row.town[c], { ...town, data: town[c] }, region, y);
      clearRow(row.seen[c], row.factor, row.twilight[c], row.town[c]);
    }
    if (layPicture) layRow(row.seen, layPicture, land, first, region, y);
    if (cloud) {
      bilinearRow(row.thick, cloud, region, y);
      CHANNELS.forEach((c, k) => cloudRow(row.seen[c], row.twilight[c], row.town[c], row.thick, above[k]));
      out.cloud.set(row.thick, first);
    }
    for (const c of CHANNELS) out[c].set(row.seen[c], first);
  }
}

function createSkyRow(width: number): SkyRow {
  const row = () => new Float32Array(width);
  const channels = () => ({ r: row(), g: row(), b: row() });
  return { twilight: channels(), town: channels(), seen: channels(), factor: row(), thick: row() };
}

/** Whether land leaves any sky in a row. */
function leavesSky(land: Float32Array, first: number, width: number): boolean {
  for (let i = first; i < first + width; i++) if (land[i] < ALL_LAND) return true;
  return false;
}

/** What the plate's own clouds change in a row: how much brighter a pixel is than the sky without them. */
function ownClouds(
  factor: Float32Array,
  { r, g, b }: RgbPlanes,
  land: Float32Array,
  broad: SkyParts['broad'],
  own: number,
  region: Region,
  y: number,
): void {
  bilinearRow(factor, broad, region, y);
  for (let x = 0, i = y * factor.length; x < factor.length; x++, i++) {
    if (land[i] >= ALL_LAND) continue;
    const day = LUMINANCE[0] * r[i] + LUMINANCE[1] * g[i] + LUMINANCE[2] * b[i];
    factor[x] = Math.min(OWN.most, Math.max(OWN.least, day / Math.max(1e-4, factor[x]))) ** own;
  }
}

/** A channel of a row of clear sky. */
function clearRow(out: Float32Array, factor: Float32Array, sky: Float32Array, town: Float32Array): void {
  for (let x = 0; x < out.length; x++) out[x] = factor[x] * (sky[x] + town[x]);
}

/** Lays a picture of a sky over a row. */
function layRow(
  { r, g, b }: Channels,
  layPicture: ReturnType<typeof createPictureLayer>,
  land: Float32Array,
  first: number,
  { left, top, fullWidth, fullHeight }: Region,
  y: number,
): void {
  const seen = new Float64Array(3);
  for (let x = 0; x < r.length; x++) {
    if (land[first + x] >= ALL_LAND) continue;
    seen.set([r[x], g[x], b[x]]);
    layPicture(seen, (left + x + 0.5) / fullWidth, (top + y + 0.5) / fullHeight);
    [r[x], g[x], b[x]] = seen;
  }
}

/** Puts clouds before a channel of a row: they are lit by the whole dome, its mean is `above`, and by what stands behind them. */
function cloudRow(
  out: Float32Array,
  sky: Float32Array,
  town: Float32Array,
  thick: Float32Array,
  above: number,
): void {
  const fromAbove = (1 - CLOUD.own) * above;
  for (let x = 0; x < out.length; x++) {
    const cover = thick[x];
    const onCloud = CLOUD.bright * (1 - CLOUD.thick * cover);
    const fromTown = TOWN_ON_CLOUDS.light * (TOWN_ON_CLOUDS.thin + (1 - TOWN_ON_CLOUDS.thin) * cover);
    const lit = onCloud * (CLOUD.own * sky[x] + fromAbove) + fromTown * town[x];
    out[x] += cover * (lit - out[x]);
  }
}
