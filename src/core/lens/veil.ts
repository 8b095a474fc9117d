import { bilinearRow } from '../plane/bilinear-row';
import { blend, type Blend } from '../plane/blend';
import { boxBlur } from '../plane/box-blur';
import type { RgbPlanes } from '../plane/plane';
import type { Region } from '../plane/region';

/** The narrowest of the veil's blurs, fraction of the width: what is nearer belongs to the source's own image. */
const NARROWEST = 0.008;

/** Share of light that lenses spread about at a veil of 0 stops, and the most that any does. */
const VEIL = { share: 0.02, most: 0.5 } as const;

/** One of the blurs that a veil is made of: standard deviation as a fraction of the width, and its share. */
export interface VeilBlur {
  sigma: number;
  share: number;
}

/** Degrees that a fraction of the width spans, for a lens that sees 50 degrees: so far a veil is the same for all lenses. */
const DEGREES = 50;

/**
 * Glare falls off with the angle as 10 / angle^3 + 5 / angle^2 (Vos and van den Berg 1999, the general disability glare equation of
 * CIE 146:2002). Round blurs an octave apart, each with a share of the light, add up to that: equal shares fall off with the
 * square of the distance, and shares that go with one over the breadth with its cube.
 *
 * @param reach where the veil ends, fraction of the width
 * @returns blurs whose shares add up to 1
 */
export function veilBlurs(reach: number): VeilBlur[] {
  const octaves = Math.max(1, Math.ceil(Math.log2(reach / NARROWEST)));
  const sigmas = Array.from({ length: octaves }, (_, k) => Math.min(reach, NARROWEST * 2 ** (k + 0.5)));
  const shares = sigmas.map((sigma) => 5 + 10 / (DEGREES * sigma));
  const whole = shares.reduce((sum, share) => sum + share, 0);
  return sigmas.map((sigma, k) => ({ sigma, share: shares[k] / whole }));
}

/** Share of all light that a veil of a strength spreads. */
export const veilShare = (gain: number): number => Math.min(VEIL.most, VEIL.share * gain);

/** Three boxes make a round blur. Half breadth of each, pixels, for a standard deviation (Wells 1986). */
const boxRadius = (sigma: number) => Math.max(1, Math.round((Math.sqrt(4 * sigma * sigma + 1) - 1) / 2));

/** What a veil is made with; kernels stand in for it. */
export type VeilKit = { boxBlur: typeof boxBlur } & Pick<Blend, 'addWeighted'>;

/**
 * The light that a lens spreads over a picture. At the edges windows are cut, so that an even picture stays as it is.
 *
 * @param out of the size of `light`, filled anew; it may not be `light`
 * @param reach where the veil ends, fraction of the width
 * @param room two planes of that size
 */
export function veilLight(
  out: RgbPlanes,
  light: RgbPlanes,
  reach: number,
  room: readonly [Float32Array, Float32Array],
  kit: VeilKit = { ...blend, boxBlur },
): void {
  const { width, height } = light;
  const [one, scratch] = room;
  const blurs = veilBlurs(reach).map(({ sigma, share }) => ({ share, radius: boxRadius(sigma * width) }));
  for (const c of ['r', 'g', 'b'] as const) {
    out[c].fill(0);
    for (const { radius, share } of blurs) {
      kit.boxBlur(one, light[c], scratch, width, height, radius);
      kit.boxBlur(one, one, scratch, width, height, radius);
      kit.boxBlur(one, one, scratch, width, height, radius);
      kit.addWeighted(out[c], one, share);
    }
  }
}

/** A picture at half its size, by means of two by two pixels. */
export function halved({ width, height, ...planes }: RgbPlanes): RgbPlanes {
  const [wide, high] = [Math.ceil(width / 2), Math.ceil(height / 2)];
  const shrunk = (plane: Float32Array) => {
    const out = new Float32Array(wide * high);
    for (let y = 0, i = 0; y < high; y++) {
      const upper = 2 * y * width;
      const lower = Math.min(2 * y + 1, height - 1) * width;
      for (let x = 0; x < wide; x++, i++) {
        const left = 2 * x;
        const right = Math.min(left + 1, width - 1);
        out[i] =
          0.25 * (plane[upper + left] + plane[upper + right] + plane[lower + left] + plane[lower + right]);
      }
    }
    return out;
  };
  return { width: wide, height: high, r: shrunk(planes.r), g: shrunk(planes.g), b: shrunk(planes.b) };
}

/** Light but for the share that is spread, and of the veil as much. @param veil of the whole picture at any size; none: nothing is spread */
export function spreadLight(
  out: RgbPlanes,
  light: RgbPlanes,
  veil: RgbPlanes | undefined,
  share: number,
  region: Region,
): void {
  const row = new Float32Array(region.width);
  for (const c of ['r', 'g', 'b'] as const) {
    const [made, own] = [out[c], light[c]];
    if (!veil) {
      made.set(own);
      continue;
    }
    const spread = { width: veil.width, height: veil.height, data: veil[c] };
    for (let y = 0, i = 0; y < region.height; y++) {
      bilinearRow(row, spread, region, y);
      for (let x = 0; x < region.width; x++, i++) made[i] = own[i] + share * (row[x] - own[i]);
    }
  }
}
