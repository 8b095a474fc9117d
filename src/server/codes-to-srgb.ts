import { INTENT_RELATIVE_COLORIMETRIC, instantiate, TYPE_RGB_16, cmsFLAGS_NOCACHE } from 'lcms-wasm';

/** Pixels that are converted at a time. */
const CHUNK = 1 << 20;

/** 16-bit codes of a profile as those of sRGB, by LittleCMS. The codes are overwritten. Throws for a broken profile. */
export async function codesToSrgb(codes: Uint16Array, profile: Uint8Array): Promise<Uint16Array> {
  const lcms = await instantiate();
  const from = lcms.cmsOpenProfileFromMem(profile, profile.byteLength);
  if (!from) throw new Error('The colour profile is broken.');
  const to = lcms.cmsCreate_sRGBProfile();
  const transform = lcms.cmsCreateTransform(
    from,
    TYPE_RGB_16,
    to,
    TYPE_RGB_16,
    INTENT_RELATIVE_COLORIMETRIC,
    cmsFLAGS_NOCACHE,
  );
  if (!transform) throw new Error('The colour profile is not one of an RGB picture.');
  for (let first = 0; first < codes.length; first += 3 * CHUNK) {
    const part = codes.subarray(first, Math.min(codes.length, first + 3 * CHUNK));
    part.set(lcms.cmsDoTransform(transform, part, part.length / 3));
  }
  return codes;
}
