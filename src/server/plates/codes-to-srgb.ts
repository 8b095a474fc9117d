import { cmsFLAGS_NOCACHE, INTENT_RELATIVE_COLORIMETRIC, instantiate, TYPE_RGB_16, TYPE_RGB_8 } from './lcms';
import type { DecodedCodes, DecodeWork } from './decode-job';
import { decodeCodes } from './decode-codes';

/** Pixels that are converted at a time. */
const CHUNK = 1 << 20;

/** A picture with a profile of tables as 16-bit codes of sRGB, by LittleCMS, some rows at a time. Throws for a broken profile. */
export async function codesToSrgb({
  path,
  profile,
  deep,
}: DecodeWork['convert']['given']): Promise<DecodedCodes> {
  const lcms = await instantiate();
  const from = lcms.cmsOpenProfileFromMem(profile, profile.byteLength);
  if (!from) throw new Error('The colour profile is broken.');
  const transform = lcms.cmsCreateTransform(
    from,
    deep ? TYPE_RGB_16 : TYPE_RGB_8,
    lcms.cmsCreate_sRGBProfile(),
    TYPE_RGB_16,
    INTENT_RELATIVE_COLORIMETRIC,
    cmsFLAGS_NOCACHE,
  );
  if (!transform) throw new Error('The colour profile is not one of an RGB picture.');
  const { data, width, height } = await decodeCodes(path, deep);
  const out = data instanceof Uint16Array ? data : new Uint16Array(data.length);
  for (let first = 0; first < data.length; first += 3 * CHUNK) {
    const part = data.subarray(first, Math.min(data.length, first + 3 * CHUNK));
    out.set(lcms.cmsDoTransform(transform, part, part.length / 3), first);
  }
  return { data: out, width, height };
}
