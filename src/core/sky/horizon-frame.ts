import type { Vec3 } from '../geometry/vec3';
import type { SkySettings } from './sky-schema';

/** When, from where and to which side the sky is looked at. */
export type When = SkySettings['when'];

const DEGREE = Math.PI / 180;

/** A vector of the horizon's frame (north, west, up) in the world of an eye that looks to a bearing. */
export function toWorld([north, west, up]: Vec3, bearing: number): Vec3 {
  const [cos, sin] = [Math.cos(bearing * DEGREE), Math.sin(bearing * DEGREE)];
  return [-west * cos - north * sin, north * cos - west * sin, up];
}

/** The pole that the sky turns about, seen from a latitude. */
export const celestialPole = ({ latitude, bearing }: Pick<When, 'latitude' | 'bearing'>): Vec3 =>
  toWorld([Math.cos(latitude * DEGREE), 0, Math.sin(latitude * DEGREE)], bearing);
