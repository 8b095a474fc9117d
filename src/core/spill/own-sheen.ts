import { MIDDLE_GREY } from '../color/middle-grey';

/**
 * What rough surfaces give back of a source beside their diffuse light: microfacets of GGX (Walter et al. 2007) with Smith
 * shadowing and Schlick's Fresnel (1994). Even dry paving shines at a grazing view. `alpha` is the square of a roughness of
 * 0.6, `f0` the reflectance of stone, plaster and varnish seen straight on.
 */
export const OWN_SHEEN = { alpha: 0.36, f0: 0.04 } as const;

const A2 = OWN_SHEEN.alpha ** 2;

/**
 * Sheen of a surface under a small source, as the share that it adds to an illuminance of 1 at right angles: it multiplies
 * the plate, as diffuse light does, on the ground that a surface reflects MIDDLE_GREY in the mean.
 *
 * @param nl cosine between normal and light, above 0
 * @param nv cosine between normal and view, above 0
 * @param lv cosine between light and view
 */
export function ownSheen(nl: number, nv: number, lv: number): number {
  const half = Math.sqrt(Math.max(1e-6, 2 + 2 * lv));
  const nh = (nl + nv) / half;
  const spread = nh * nh * (A2 - 1) + 1;
  const facets = A2 / (spread * spread);
  const hidden = (nl + Math.sqrt(A2 + (1 - A2) * nl * nl)) * (nv + Math.sqrt(A2 + (1 - A2) * nv * nv));
  const away = 1 - half / 2;
  const square = away * away;
  const fresnel = OWN_SHEEN.f0 + (1 - OWN_SHEEN.f0) * square * square * away;
  // Pi of the diffuse light and of the facets' distribution cancel out.
  return (nl * facets * fresnel) / (hidden * MIDDLE_GREY);
}
