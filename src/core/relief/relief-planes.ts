/**
 * The lie of the land per pixel of a region. The place seen at a pixel is eye + ray * reach, with the camera's
 * unnormalised ray.
 */
export interface Relief {
  reach: Float32Array;
  /** Normal of the surface, world axes: of unit length, shorter where leaves look all ways. */
  normalX: Float32Array;
  normalY: Float32Array;
  normalZ: Float32Array;
  /** 0: the normal is known. 1: the surface stands upright and faces some way that is not known. */
  unknownFacing: Float32Array;
  /** Coverage by land; the rest is sky, which takes no spill. */
  land: Float32Array;
  /** Length of the way through haze from the eye, metres: to the land, or out of the haze's top in the sky. */
  distance: Float32Array;
  /** How much of the light the surface gives back as a mirror, 0 to 1. */
  sheen: Float32Array;
  /** Width of the mirror's microfacets (alpha of GGX): the square of its roughness. */
  alpha: Float32Array;
}

/** Names of a relief's planes, in the order in which engines lay them out. */
export const RELIEF_PLANES = [
  'reach',
  'normalX',
  'normalY',
  'normalZ',
  'unknownFacing',
  'land',
  'distance',
  'sheen',
  'alpha',
] as const;
