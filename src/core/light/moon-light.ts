import type { PointLight } from './point-light';

/** What a full moon gives to a surface that faces it, lux (Allen's Astrophysical Quantities, 4th ed., 2000). */
export const FULL_MOON_LUX = 0.25;

/** So far that its rays are as good as parallel over any scene, and near enough for 32-bit floats, metres. */
const FAR = 20_000;

/** Half the angle under which the moon is seen, radians. */
const HALF_ANGLE = 0.0045;

/** Where the moon stands: degrees to the right of where the eye looks, and over the horizon. */
export interface MoonPlace {
  azimuth: number;
  elevation: number;
}

/** The moon as a far source. */
export function moonLight({ azimuth, elevation }: MoonPlace): PointLight {
  const [turn, rise] = [azimuth, elevation].map((degrees) => (degrees * Math.PI) / 180);
  const level = FAR * Math.cos(rise);
  return {
    place: [level * Math.sin(turn), level * Math.cos(turn), FAR * Math.sin(rise)],
    spillCandela: FULL_MOON_LUX * FAR * FAR,
    airCandela: 0,
    radius: FAR * HALF_ANGLE,
  };
}
