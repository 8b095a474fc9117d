import type { Vec3 } from '../geometry/vec3';

/** A small source, or a small part of a large one, as spill and air see it. */
export interface PointLight {
  /** Where it hangs, world axes, metres. */
  place: Vec3;
  /** Luminous intensity that lands on surfaces, candela; of a patch that faces somewhere, straight ahead. */
  spillCandela: number;
  /** Luminous intensity that haze scatters, candela. */
  airCandela: number;
  /** Radius of the source, metres: keeps light finite at its own glass. */
  radius: number;
  /**
   * Normal of a flat patch, which shines by the cosine (Lambert), times what it shines straight ahead; without it light goes
   * evenly all around.
   */
  facing?: Vec3;
  /** Of a patch: how far before its plane a surface lies at least that it lights, metres. */
  clear?: number;
  /** How narrowly it shines where it faces, which then is a unit vector: its cosine to the power of 2^focus. */
  focus?: number;
  /** Sine of the elevation over which a beam sends nothing, as headlamps do; without it there is no limit. */
  cutoff?: number;
  /** Beside its cosine, the share that a light that faces somewhere sends evenly. */
  even?: number;
}

/** Over how much of the sine of its elevation a cut-off goes from all to nothing: about a degree. */
export const CUTOFF_SOFT = 0.02;

/** A cut-off that cuts nothing: no elevation has this sine. */
export const NO_CUTOFF = 2;

/** What a cut-off leaves of a beam at a sine of elevation, 0 to 1. */
export const belowCutoff = (cutoff: number, sine: number): number =>
  Math.min(1, Math.max(0, (cutoff - sine) / CUTOFF_SOFT + 0.5));

/** All that a light sends out, lumens. A beam's cut-off is not taken off. */
export function luminousFlux({ spillCandela, facing, focus = 0, even = 0 }: PointLight): number {
  const ahead = (2 * Math.PI) / (2 ** focus + 1);
  return spillCandela * (facing ? ahead + 4 * Math.PI * even : 4 * Math.PI);
}
