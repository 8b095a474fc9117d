import { createNoise3D } from 'simplex-noise';
import { seeded } from '../fixture/seeded';
import type { Camera, PlatePoint } from '../geometry/camera';
import { groundPoint } from '../geometry/ground';
import { NEAREST_STALK } from '../geometry/place-on-stalk';
import { clamp } from '../plane/clamp';
import type { Region } from '../plane/region';
import { smoothStep } from '../plane/smooth-step';
import type { Relief } from '../relief/relief-planes';
import type { Drift } from './drift-schema';
import { hypot } from '../plane/hypot';

/** What the thickest part of the densest drift lets through. */
const LEAST_THROUGH = 0.03;

/** Wisps: octaves, how much finer and weaker each is, and how many of the broadest lie across a drift. */
const WISPS = { octaves: 5, finer: 2.03, weaker: 0.55, across: 1.6 } as const;

/** Depth of a drift against its half breadth. */
const DEPTH = 0.5;

/** Around a lamp that hangs before a drift: where it is quite before it, and where no longer, radii of its glass. */
const LAMP = { inner: 1.2, outer: 4 } as const;

/** A lamp that hangs nearer than a drift: what it covers of it. */
export interface NearLamp {
  at: PlatePoint;
  size: number;
}

/** How far ahead a drift hangs, metres. */
export const driftAhead = (camera: Camera, { foot }: Pick<Drift, 'foot'>): number =>
  Math.max(NEAREST_STALK, groundPoint(camera, foot)[1]);

/** Optical depth of a drift by where in it one looks, -1 to 1 from its middle to its sides. `pixel`: of a pixel, in the same measure. */
function createDepth({ density, wisps, carried, seed, tall }: Drift, pixel: number) {
  const noise = createNoise3D(seeded(seed));
  const thickest = -Math.log(1 - density * (1 - LEAST_THROUGH));
  const bands: { scale: number; weight: number }[] = [];
  for (let k = 0, scale: number = WISPS.across, weight = 1; k < WISPS.octaves; k++) {
    // What is finer than two pixels is left out, softly.
    bands.push({ scale, weight: k === 0 ? weight : weight * smoothStep(1, 4, 1 / (scale * pixel)) });
    scale *= WISPS.finer;
    weight *= WISPS.weaker;
  }
  return (x: number, y: number): number => {
    const away = x * x + (y / tall) ** 2;
    if (away >= 1) return 0;
    let sum = 0;
    for (const [k, { scale, weight }] of bands.entries())
      sum += weight * noise((x - carried) * scale, y * scale, 7 * k + 0.3 * carried);
    const torn = 2 * clamp(0.5 + 0.9 * sum, 0, 1) ** 2;
    return thickest * (1 - away) ** 2 * (1 - wisps + wisps * torn);
  };
}

/**
 * What a drift holds back at each pixel of a region, 0 to 1: only that part of it which lies before the surfaces that are seen there,
 * and which no near lamp covers. It stands upright at its foot, facing the eye.
 */
export function driftCover(
  out: Float32Array,
  relief: Pick<Relief, 'reach' | 'land'>,
  camera: Camera,
  region: Region,
  drift: Drift,
  lamps: readonly NearLamp[],
): void {
  const { corner, across, down, aspect, focal } = camera;
  const { at, size } = drift;
  const ahead = driftAhead(camera, drift);
  const thick = Math.max(0.05, (DEPTH * size * ahead) / focal);
  const depth = createDepth(drift, 1 / (size * region.fullWidth));
  for (let y = 0, i = 0; y < region.height; y++) {
    const v = (region.top + y + 0.5) / region.fullHeight;
    const py = (v - at.v) / aspect / size;
    for (let x = 0; x < region.width; x++, i++) {
      const u = (region.left + x + 0.5) / region.fullWidth;
      const tau = Math.abs(py) < drift.tall ? depth((u - at.u) / size, py) : 0;
      if (tau === 0) {
        out[i] = 0;
        continue;
      }
      const rx = corner[0] + u * across[0] + v * down[0];
      const ry = corner[1] + u * across[1] + v * down[1];
      const rz = corner[2] + u * across[2] + v * down[2];
      const behind = (relief.reach[i] - ahead / Math.max(1e-3, ry)) * Math.sqrt(rx * rx + ry * ry + rz * rz);
      const seen = 1 - relief.land[i] + relief.land[i] * smoothStep(-thick, thick, behind);
      let bare = 1;
      for (const lamp of lamps) {
        const from = hypot(u - lamp.at.u, (v - lamp.at.v) / aspect) / lamp.size;
        if (from < LAMP.outer) bare *= smoothStep(LAMP.inner, LAMP.outer, from);
      }
      out[i] = 1 - Math.exp(-tau * seen * bare);
    }
  }
}
