import {
  cmsFLAGS_NOCACHE,
  INTENT_RELATIVE_COLORIMETRIC,
  instantiate,
  TYPE_GRAY_FLT,
  TYPE_RGB_FLT,
  TYPE_XYZ_FLT,
} from './lcms';
import type { ColorProfile } from '@/core/color/color-profile';
import type { ReadProfile } from './decode-job';

type Lcms = Awaited<ReturnType<typeof instantiate>>;

/** Largest share of white by which the sum of what channels give alone may miss what they give together. */
const ADDITIVE = 1e-3;

/** XYZ of colours of a profile, by LittleCMS: relative colorimetric, to D50. */
function createToXyz(lcms: Lcms, profile: number, format: number): (colors: Float32Array) => Float32Array {
  const xyz = lcms.cmsCreateXYZProfile();
  const flags = cmsFLAGS_NOCACHE;
  const transform = lcms.cmsCreateTransform(
    profile,
    format,
    xyz,
    TYPE_XYZ_FLT,
    INTENT_RELATIVE_COLORIMETRIC,
    flags,
  );
  if (!transform) throw new Error('The colour profile is not one of a picture.');
  const channels = format === TYPE_GRAY_FLT ? 1 : 3;
  return (colors) => lcms.cmsDoTransform(transform, colors, colors.length / channels) as Float32Array;
}

/**
 * Reads a colour profile by LittleCMS: what each channel alone gives, for every code that a sample can have. Where the
 * channels' light does not simply add up, the profile is one of tables. Throws for what is no profile, or not one of RGB
 * or grey.
 */
export async function readColorProfile({
  profile,
  codes,
}: {
  profile: Uint8Array;
  codes: 256 | 65536;
}): Promise<ReadProfile> {
  const lcms = await instantiate();
  const from = lcms.cmsOpenProfileFromMem(profile, profile.byteLength);
  if (!from) throw new Error('The colour profile is broken.');
  const space = lcms.cmsGetColorSpaceASCII(from);
  if (space === 'GRAY') return { colors: greyProfile(createToXyz(lcms, from, TYPE_GRAY_FLT), codes) };
  if (space !== 'RGB') throw new Error('The colour profile is not one of an RGB picture.');
  const toXyz = createToXyz(lcms, from, TYPE_RGB_FLT);
  if (!addsUp(toXyz)) return { colors: 'tables' };
  const toSrgb = inverse(primaries(createToXyz(lcms, lcms.cmsCreate_sRGBProfile(), TYPE_RGB_FLT)));
  const curves = [0, 1, 2].map((channel) => curveOf(toXyz, channel, codes)) as [
    Float32Array,
    Float32Array,
    Float32Array,
  ];
  return { colors: { curves, matrix: product(toSrgb, primaries(toXyz)) } };
}

function greyProfile(toXyz: (colors: Float32Array) => Float32Array, codes: number): ColorProfile {
  const xyz = toXyz(Float32Array.from({ length: codes }, (_, code) => code / (codes - 1)));
  const curve = Float32Array.from({ length: codes }, (_, code) => xyz[3 * code + 1] / xyz[3 * codes - 2]);
  return { curves: [curve, curve, curve], matrix: [1, 0, 0, 0, 1, 0, 0, 0, 1] };
}

/** Light of one channel by code: its share of what it gives at most. */
function curveOf(
  toXyz: (colors: Float32Array) => Float32Array,
  channel: number,
  codes: number,
): Float32Array {
  const ramp = new Float32Array(3 * codes);
  for (let code = 0; code < codes; code++) ramp[3 * code + channel] = code / (codes - 1);
  const xyz = toXyz(ramp);
  const [x, y, z] = xyz.subarray(3 * codes - 3);
  const most = x + y + z;
  return Float32Array.from({ length: codes }, (_, code) => {
    const at = 3 * code;
    return (xyz[at] + xyz[at + 1] + xyz[at + 2]) / most;
  });
}

/** XYZ of a profile's red, green and blue as the columns of a matrix. */
function primaries(toXyz: (colors: Float32Array) => Float32Array): number[] {
  const [xr, yr, zr, xg, yg, zg, xb, yb, zb] = toXyz(Float32Array.of(1, 0, 0, 0, 1, 0, 0, 0, 1));
  return [xr, xg, xb, yr, yg, yb, zr, zg, zb];
}

/** Whether what channels give together is the sum of what each gives alone, tried on a lattice of colours. */
function addsUp(toXyz: (colors: Float32Array) => Float32Array): boolean {
  const levels = [0, 0.2, 0.5, 0.8, 1];
  const colors = levels.flatMap((r) => levels.flatMap((g) => levels.map((b) => [r, g, b])));
  const xyzOf = (list: number[][]) => toXyz(Float32Array.from(list.flat()));
  const together = xyzOf(colors);
  const alone = [0, 1, 2].map((channel) =>
    xyzOf(colors.map((color) => color.map((level, c) => (c === channel ? level : 0)))),
  );
  return together.every((value, i) => Math.abs(value - alone[0][i] - alone[1][i] - alone[2][i]) < ADDITIVE);
}

function product(a: readonly number[], b: readonly number[]): number[] {
  return a.map((_, i) => {
    const [row, column] = [3 * Math.floor(i / 3), i % 3];
    return a[row] * b[column] + a[row + 1] * b[column + 3] + a[row + 2] * b[column + 6];
  });
}

function inverse([a, b, c, d, e, f, g, h, i]: readonly number[]): number[] {
  const cofactors = [
    e * i - f * h,
    c * h - b * i,
    b * f - c * e,
    f * g - d * i,
    a * i - c * g,
    c * d - a * f,
    d * h - e * g,
    b * g - a * h,
    a * e - b * d,
  ];
  const determinant = a * cofactors[0] + b * cofactors[3] + c * cofactors[6];
  return cofactors.map((cofactor) => cofactor / determinant);
}
