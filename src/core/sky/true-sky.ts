import {
  Body,
  Equator,
  Horizon,
  MakeTime,
  MoonPhase,
  Observer,
  RotateVector,
  Rotation_EQJ_HOR,
  Vector,
} from 'astronomy-engine';
import { cross, dot, normalize, type Vec3 } from '../geometry/vec3';
import { skyDirection, type SkyPlace } from './direction';
import type { Star } from './scattered-stars';
import type { SkySettings } from './sky-schema';
import { STAR_CATALOGUE } from './star-catalogue';

/** When, from where and to which side the sky is looked at. */
export type When = SkySettings['when'];

const BYTES = 8;
const DEGREE = Math.PI / 180;

/** A vector of the horizon's frame (north, west, up) in the world of an eye that looks to a bearing. */
function toWorld([north, west, up]: Vec3, bearing: number): Vec3 {
  const [cos, sin] = [Math.cos(bearing * DEGREE), Math.sin(bearing * DEGREE)];
  return [-west * cos - north * sin, north * cos - west * sin, up];
}

const observerOf = ({ latitude, longitude }: When) => new Observer(latitude, longitude, 0);

/** The stars of the catalogue down to a magnitude where they stand, the brightest first. */
export function trueStars(when: When, faintest: number): Star[] {
  const time = MakeTime(new Date(when.moment));
  const rotation = Rotation_EQJ_HOR(time, observerOf(when));
  const bytes = Uint8Array.from(atob(STAR_CATALOGUE), (letter) => letter.charCodeAt(0));
  const view = new DataView(bytes.buffer);
  const stars: Star[] = [];
  for (let at = 0; at < bytes.length; at += BYTES) {
    const magnitude = view.getInt16(at + 4, true) / 100;
    if (magnitude > faintest) break;
    const ascension = (view.getUint16(at, true) * 2 * Math.PI) / 65536;
    const declination = (view.getInt16(at + 2, true) * Math.PI) / 2 / 32767;
    const level = Math.cos(declination);
    const [a, b, c] = [level * Math.cos(ascension), level * Math.sin(ascension), Math.sin(declination)];
    const { x, y, z } = RotateVector(rotation, new Vector(a, b, c, time));
    const toward = toWorld([x, y, z], when.bearing);
    stars.push({ toward, magnitude, bv: view.getInt16(at + 6, true) / 1000 });
  }
  return stars;
}

/** The pole that the sky turns about, seen from a latitude. */
export const celestialPole = ({ latitude, bearing }: Pick<When, 'latitude' | 'bearing'>): Vec3 =>
  toWorld([Math.cos(latitude * DEGREE), 0, Math.sin(latitude * DEGREE)], bearing);

/** Where a body stands, refraction apart. */
function bodyPlace(body: Body, when: When): SkyPlace {
  const date = new Date(when.moment);
  const observer = observerOf(when);
  const { ra, dec } = Equator(body, date, observer, true, true);
  const { azimuth, altitude } = Horizon(date, observer, ra, dec);
  return { azimuth: turnedTo(azimuth - when.bearing), elevation: altitude };
}

/** An angle of a turn as -180 to 180 degrees. */
const turnedTo = (degrees: number) => ((((degrees + 180) % 360) + 360) % 360) - 180;

/** Where the moon truly stands, its phase, and how it is tilted there; it may be below the horizon. */
export interface TrueMoon extends SkyPlace {
  phase: number;
  tilt: number;
}

export function trueMoon(when: When): TrueMoon {
  const place = bodyPlace(Body.Moon, when);
  const phase = MoonPhase(new Date(when.moment)) / 360;
  const moon = skyDirection(place);
  const sun = skyDirection(bodyPlace(Body.Sun, when));
  const level: Vec3 = Math.abs(moon[2]) > 0.999 ? [0, 1, 0] : [0, 0, 1];
  const side = normalize(cross(moon, level));
  const up = cross(side, moon);
  const waxing = phase < 0.5 ? 1 : -1;
  const tilt = Math.atan2(-waxing * dot(sun, up), waxing * dot(sun, side)) / DEGREE;
  return { ...place, phase, tilt: Math.round(tilt) };
}
