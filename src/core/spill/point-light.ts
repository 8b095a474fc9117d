import type { Vec3 } from '../plan/vec3';

/** A small source as spill and air see it. */
export interface PointLight {
  /** Where it hangs, world axes, metres. */
  place: Vec3;
  /** Luminous intensity that lands on surfaces, candela. */
  spillCandela: number;
  /** Luminous intensity that haze scatters, candela. */
  airCandela: number;
  /** Radius of the source, metres: keeps light finite at its own glass. */
  radius: number;
}
