import { MIDDLE_GREY } from '../color/middle-grey';

/**
 * What dull surfaces give back of a source beside their diffuse light: microfacets of GGX (Walter et al. 2007) with Smith
 * shadowing and Schlick's Fresnel (1994). Even dry paving shines at a grazing view. `alpha` is the square of a roughness of
 * 0.6, `f0` the reflectance of stone, plaster and varnish seen straight on.
 */
export const OWN_SHEEN = { alpha: 0.36, f0: 0.04 } as const;

/**
 * Sheen of a surface under a small source, as the share that it adds to an illuminance of 1 at right angles: it multiplies
 * the plate, as diffuse light does, on the ground that a surface reflects MIDDLE_GREY in the mean. A bent normal may look away from the
 * eye that sees it, so that its cosines are those of no three directions: then it dims, the less they fit.
 *
 * @param nl cosine between normal and light, above 0
 * @param nv cosine between normal and view, above 0
 * @param lv cosine between light and view
 */
export function ownSheen(nl: number, nv: number, lv: number): number {
  const { alpha } = OWN_SHEEN;
  const half = halfLength(lv);
  const nh2 = ((nl + nv) / half) ** 2;
  const spread = Math.min(1, nh2) * (alpha * alpha - 1) + 1;
  const facets = (alpha * alpha) / (spread * spread * Math.max(1, nh2));
  return shown(nl, nv, half, alpha, facets) / MIDDLE_GREY;
}

/**
 * What a surface that shines gives back of a round source, as the luminance that it shows under an illuminance of 1 at right
 * angles, times pi: it adds to the plate. The lobe of its facets is widened by the source's disc: across the way of the light
 * a facet need turn the less the more grazing the light is, along it by half of the angle (anisotropic GGX, Burley 2012).
 *
 * @param alpha width of its facets, the square of its roughness, above 0 to 1
 * @param seen radius of the source as the surface sees it, radians
 */
export function mirrorShine(nl: number, nv: number, lv: number, alpha: number, seen: number): number {
  const half = halfLength(lv);
  const nh = (nl + nv) / half;
  const along = (half / 2 - nv * nh) / Math.sqrt(Math.max(1e-6, 1 - nv * nv));
  const across2 = Math.max(0, 1 - nh * nh - along * along);
  const wide = Math.min(1, alpha + seen / half);
  const long = Math.min(1, alpha + seen / 2);
  const spread = across2 / (wide * wide) + (along * along) / (long * long) + nh * nh;
  return shown(nl, nv, half, alpha, 1 / (wide * long * spread * spread));
}

/** Length of the sum of the unit vectors to light and eye, by their cosine. */
const halfLength = (lv: number) => Math.sqrt(Math.max(1e-6, 2 + 2 * lv));

/** Smith's shadowing and Schlick's Fresnel over a share of facets. Pi of the diffuse light and of the facets cancel out. */
function shown(nl: number, nv: number, half: number, alpha: number, facets: number): number {
  const a2 = alpha * alpha;
  const hidden = (nl + Math.sqrt(a2 + (1 - a2) * nl * nl)) * (nv + Math.sqrt(a2 + (1 - a2) * nv * nv));
  const away = 1 - half / 2;
  const square = away * away;
  const fresnel = OWN_SHEEN.f0 + (1 - OWN_SHEEN.f0) * square * square * away;
  return (nl * facets * fresnel) / hidden;
}
