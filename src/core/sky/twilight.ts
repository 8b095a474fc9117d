import { unitLuminance } from '../color/luminance';
import type { Rgb } from '../color/rgb';
import { blackbodyRgb } from '../color/planckian';
import { CAMERA_WHITE } from '../color/camera-white';
import type { SkyPlace } from './direction';

/**
 * The clear sky after sunset by the sun's depth in degrees: colour overhead, colour and share of the band over where the sun went, how high
 * it reaches in degrees, and the share of the rose band over the earth's shadow. Read with straight lines between. Shares are of the
 * light overhead. A fit by eye to the course of published twilight measurements: the blue of ozone overhead, a band that sinks and reddens.
 */
const COURSE: readonly {
  depth: number;
  dome: Rgb;
  band: Rgb;
  bandShare: number;
  reach: number;
  rose: number;
}[] = [
  { depth: 0, dome: [0.34, 0.53, 1], band: [1, 0.72, 0.4], bandShare: 2.2, reach: 13, rose: 0.2 },
  { depth: 4, dome: [0.17, 0.36, 1], band: [1, 0.58, 0.26], bandShare: 2.8, reach: 8, rose: 0.25 },
  { depth: 7, dome: [0.08, 0.25, 1], band: [1, 0.52, 0.26], bandShare: 3.2, reach: 5.5, rose: 0.04 },
  { depth: 10, dome: [0.08, 0.23, 1], band: [1, 0.48, 0.28], bandShare: 2.4, reach: 5, rose: 0 },
  { depth: 13, dome: [0.18, 0.32, 0.9], band: [0.9, 0.5, 0.36], bandShare: 0.6, reach: 5, rose: 0 },
  { depth: 16, dome: [0.3, 0.44, 0.8], band: [0.8, 0.6, 0.5], bandShare: 0, reach: 5, rose: 0 },
];

/** How much brighter the sky is near the horizon all around, and up to how many degrees. */
const RIM = { share: 0.9, reach: 16 } as const;

/** The rose band opposite the sun: its colour, elevation and half its breadth in degrees. */
const ROSE = { color: [1, 0.5, 0.55] as Rgb, elevation: 11, breadth: 6 } as const;

/**
 * A town's lamps seen in the air over it: how high the warm haze over the roofs reaches in degrees, how pale it is, and the colour and
 * share of what clear air overhead scatters of it, which is bluer than the lamps.
 */
const TOWN = { reach: 9, paleness: 0.3, overhead: [0.42, 0.56, 1] as Rgb, share: 0.45 } as const;

/** Radiance over directions, of any scale. */
export type Dome = (place: SkyPlace) => Rgb;

const mix = (a: number, b: number, t: number) => a + t * (b - a);
const mixRgb = (a: Rgb, b: Rgb, t: number): Rgb => [
  mix(a[0], b[0], t),
  mix(a[1], b[1], t),
  mix(a[2], b[2], t),
];

/** What of the course holds at a depth of the sun, degrees. */
function courseAt(depth: number) {
  const i = Math.min(
    COURSE.length - 2,
    Math.max(
      0,
      COURSE.findLastIndex((at) => at.depth <= depth),
    ),
  );
  const [from, to] = [COURSE[i], COURSE[i + 1]];
  const t = Math.min(1, Math.max(0, (depth - from.depth) / (to.depth - from.depth)));
  return {
    dome: unitLuminance(mixRgb(from.dome, to.dome, t)),
    band: unitLuminance(mixRgb(from.band, to.band, t)),
    bandShare: mix(from.bandShare, to.bandShare, t),
    reach: mix(from.reach, to.reach, t),
    rose: mix(from.rose, to.rose, t),
  };
}

/**
 * The clear sky's twilight, of any scale.
 *
 * @param depth how far the sun stands below the horizon, degrees
 * @param sunAzimuth where it went, degrees to the right of where the eye looks
 * @param afterglow factor on the band over where the sun went
 */
export function twilightDome(depth: number, sunAzimuth: number, afterglow: number): Dome {
  const { dome, band, bandShare, reach, rose } = courseAt(depth);
  return ({ azimuth, elevation }) => {
    const above = Math.max(0, elevation);
    const toward = (1 + Math.cos(((azimuth - sunAzimuth) * Math.PI) / 180)) / 2;
    const blue = 0.75 + 0.25 * toward + RIM.share * Math.exp(-above / RIM.reach);
    const warm = afterglow * bandShare * (0.03 + 0.97 * toward ** 8) * Math.exp(-above / reach);
    const off = (above - ROSE.elevation) / ROSE.breadth;
    const pink = afterglow * rose * (1 - toward) ** 2 * Math.exp(-off * off);
    return [
      blue * dome[0] + warm * band[0] + pink * ROSE.color[0],
      blue * dome[1] + warm * band[1] + pink * ROSE.color[1],
      blue * dome[2] + warm * band[2] + pink * ROSE.color[2],
    ];
  };
}

/** The glow of a town's own lamps in the air, of any scale: a warm lift toward the horizon, a faint cool one overhead. */
export function townDome(kelvin: number): Dome {
  const warm = mixRgb(blackbodyRgb(kelvin, CAMERA_WHITE), [1, 1, 1], TOWN.paleness);
  const cool = unitLuminance(TOWN.overhead);
  return ({ elevation }) => {
    const above = Math.max(0, elevation);
    const low = Math.exp(-above / TOWN.reach);
    const high = TOWN.share * (0.7 + 0.3 * Math.exp(-above / 30));
    return [low * warm[0] + high * cool[0], low * warm[1] + high * cool[1], low * warm[2] + high * cool[2]];
  };
}
