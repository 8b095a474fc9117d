import { luminance } from '../color/luminance';
import { times, type Rgb } from '../color/rgb';
import { ambientLux, sunDepth, TOWN_GLOW, twilightLux } from '../night/hour';
import { townDome, twilightDome, type Dome } from './twilight';

/** How finely a dome is summed: rings of elevation, and directions in each. */
const RINGS = 24;
const TURNS = 24;

/** Illuminance that a dome gives level ground, by channel: its radiance times the sine of its elevation, over the upper hemisphere. */
export function domeIrradiance(dome: Dome): Rgb {
  let [r, g, b] = [0, 0, 0];
  for (let ring = 0; ring < RINGS; ring++) {
    const elevation = (90 * (ring + 0.5)) / RINGS;
    const rise = (elevation * Math.PI) / 180;
    const weight = Math.sin(rise) * Math.cos(rise);
    for (let turn = 0; turn < TURNS; turn++) {
      const seen = dome({ azimuth: (360 * turn) / TURNS - 180, elevation });
      r += weight * seen[0];
      g += weight * seen[1];
      b += weight * seen[2];
    }
  }
  const share = ((Math.PI / 2 / RINGS) * 2 * Math.PI) / TURNS;
  return [share * r, share * g, share * b];
}

/** Illuminance that a dome gives level ground. */
export const domeLux = (dome: Dome): number => luminance(domeIrradiance(dome));

/** What a person says of the clear sky. */
export interface DomeSettings {
  hour: number;
  /** Where the sun went, degrees to the right of where the eye looks. */
  sun: number;
  /** The band over where it went, stops, and the town's glow, stops and kelvin. */
  afterglow: number;
  town: number;
  townKelvin: number;
}

/** A dome, brighter or darker. */
const scaled =
  (dome: Dome, k: number): Dome =>
  (place) =>
    times(dome(place), k);

/**
 * The luminance of the clear sky over directions, cd/m2 in linear sRGB: the sky's own, and what the town adds. With nothing changed by hand
 * both together give level ground the hour's ambient lux: sky and land agree. What a person adds to one part changes no other.
 */
export function clearSky({ hour, sun, afterglow, town, townKelvin }: DomeSettings) {
  const depth = sunDepth(hour);
  const plain = domeLux(twilightDome(depth, sun, 1));
  const glow = townDome(townKelvin);
  return {
    twilight: scaled(twilightDome(depth, sun, 2 ** afterglow), twilightLux(hour) / plain),
    town: scaled(glow, (TOWN_GLOW * 2 ** town) / domeLux(glow)),
  };
}

/** Light of the picture that one cd/m2 of the sky gives: a white sheet on the ground under the hour's light shows as the night's exposure says. */
export const lightPerSkyNit = ({ exposure, hour }: { exposure: number; hour: number }): number =>
  (Math.PI * 2 ** exposure) / ambientLux(hour);
