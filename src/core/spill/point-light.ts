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
  /**
   * Normal of a flat patch, which shines by the cosine (Lambert), times what it shines straight ahead; without it light goes
   * evenly all around.
   */
  facing?: Vec3;
  /** Beside its cosine, the share that a light that faces somewhere sends evenly. */
  even?: number;
}
