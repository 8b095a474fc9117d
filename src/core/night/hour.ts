/** Starting values of the night at one hour. */
export interface HourValues {
  /** What the day's exposure is pulled by, stops. */
  exposure: number;
  /** Colour temperature of the ambient light, kelvin. */
  kelvin: number;
  /** Saturation of what only ambient light shows, 1 is the plate's own. */
  saturation: number;
  /** How far rods see instead of cones, 0 to 1. */
  rods: number;
}

/** Named places of the hour line, with the values that a night starts from there. Hours run from 0 to 1. */
export const HOURS: readonly (HourValues & { at: number; name: string })[] = [
  { at: 0, name: 'sunset', exposure: -1.2, kelvin: 5000, saturation: 0.95, rods: 0 },
  { at: 0.24, name: 'dusk', exposure: -2.3, kelvin: 8200, saturation: 0.74, rods: 0.15 },
  { at: 0.44, name: 'blue hour', exposure: -3.4, kelvin: 13000, saturation: 0.58, rods: 0.4 },
  { at: 0.72, name: 'night', exposure: -4.7, kelvin: 12000, saturation: 0.44, rods: 0.7 },
  { at: 1, name: 'deep night', exposure: -5.8, kelvin: 11000, saturation: 0.36, rods: 0.9 },
];

/** How far the sun stands below the horizon at the end of the hour line, degrees. */
const DEEPEST_SUN = 16;

/** Twilight on level ground by the sun's depth in degrees, lux; starlight at the end. Read with log interpolation. */
const TWILIGHT: readonly (readonly [depth: number, lux: number])[] = [
  [0, 400],
  [6, 3.4],
  [12, 0.008],
  [16, 0.002],
];

/** What a small town's own lamps send back from the sky, lux. */
export const TOWN_GLOW = 0.12;

/** Sun's depth below the horizon at an hour, degrees. */
export function sunDepth(hour: number): number {
  return DEEPEST_SUN * Math.min(1, Math.max(0, hour));
}

/** Ambient illuminance at an hour, lux: twilight, and what the town sends back. */
export const ambientLux = (hour: number): number => twilightLux(hour) + TOWN_GLOW;

/** Illuminance of level ground by the sky's own light at an hour, lux. */
export function twilightLux(hour: number): number {
  const depth = sunDepth(hour);
  const i = Math.min(
    TWILIGHT.length - 2,
    TWILIGHT.findLastIndex(([d]) => d <= depth),
  );
  const [d0, l0] = TWILIGHT[i];
  const [d1, l1] = TWILIGHT[i + 1];
  return l0 * (l1 / l0) ** ((depth - d0) / (d1 - d0));
}

/** The values that a night starts from at an hour between the named ones: kelvin runs in mireds. */
export function hourValues(hour: number): HourValues {
  const h = Math.min(1, Math.max(0, hour));
  const i = Math.min(
    HOURS.length - 2,
    HOURS.findLastIndex(({ at }) => at <= h),
  );
  const [from, to] = [HOURS[i], HOURS[i + 1]];
  const t = (h - from.at) / (to.at - from.at);
  const between = (a: number, b: number) => a + t * (b - a);
  return {
    exposure: between(from.exposure, to.exposure),
    kelvin: 1 / between(1 / from.kelvin, 1 / to.kelvin),
    saturation: between(from.saturation, to.saturation),
    rods: between(from.rods, to.rods),
  };
}

/** The nearest name for an hour. */
export function hourName(hour: number): string {
  return HOURS.reduce((best, next) => (Math.abs(next.at - hour) < Math.abs(best.at - hour) ? next : best))
    .name;
}
