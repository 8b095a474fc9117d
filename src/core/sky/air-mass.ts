/**
 * How many times the air overhead a ray passes that comes from some degrees over the horizon: 1 at the zenith, some 38 at the horizon
 * (Kasten and Young 1989). What lies below is taken as the horizon.
 */
export function airMass(elevation: number): number {
  const above = Math.max(0, elevation);
  return 1 / (Math.sin((above * Math.PI) / 180) + 0.50572 * (above + 6.07995) ** -1.6364);
}

/** Magnitudes that a clear night's air takes from a star, for one air mass. */
const EXTINCTION = 0.25;

/** What is left of a star's light at an elevation in degrees. */
export const transmission = (elevation: number): number => 10 ** (-0.4 * EXTINCTION * airMass(elevation));
