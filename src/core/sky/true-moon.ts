import { Body, Equator, Horizon, MoonPhase, Observer } from 'astronomy-engine';
import { dot } from '../geometry/vec3';
import { besideDirection, skyDirection, type SkyPlace } from './direction';
import type { When } from './horizon-frame';

const DEGREE = Math.PI / 180;

/** Where a body stands, refraction apart. */
function bodyPlace(body: Body, when: When): SkyPlace {
  const date = new Date(when.moment);
  const observer = new Observer(when.latitude, when.longitude, 0);
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
  const { side, up } = besideDirection(moon);
  const waxing = phase < 0.5 ? 1 : -1;
  const tilt = Math.atan2(-waxing * dot(sun, up), waxing * dot(sun, side)) / DEGREE;
  return { ...place, phase, tilt: Math.round(tilt) };
}
