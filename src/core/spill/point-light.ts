import type { Vec3 } from '../plan/vec3';

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
  /** Unit normal of a flat patch, which shines by the cosine (Lambert); without it light goes evenly all around. */
  facing?: Vec3;
}
