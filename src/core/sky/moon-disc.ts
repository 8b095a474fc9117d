import { createNoise3D } from 'simplex-noise';
import { seeded } from '../fixture/seeded';
import { dot, type Vec3 } from '../geometry/vec3';
import { clamp } from '../plane/clamp';
import { smoothStep } from '../plane/smooth-step';
import { besideDirection } from './direction';
import { hypot } from '../plane/hypot';

/** Half the angle under which the moon is seen, radians. */
export const MOON_RADIUS = 0.00465;

/** How the moon looks. */
export interface MoonLook {
  /** 0 new, 0.5 full, 1 new again. */
  phase: number;
  /** Breadth against the true one. */
  size: number;
  /** How far its north is turned to the right, degrees. */
  tilt: number;
}

/** Its seas are the same for everyone. */
const SEED = 11;

/** How dark its seas are, and what the earth gives to the side without sun, as shares of its bright land. */
const SEAS = 0.42;
const EARTHSHINE = 0.004;

/** Breadth of the terminator, as a cosine; and of the softness of the limb as a share of the radius, at least. */
const TERMINATOR = 0.12;
const LIMB = 0.012;

/** How much light a moon of a phase gives against a full one (Allen 1976, as fitted by Krisciunas and Schaefer 1991). */
export function phaseLight(phase: number): number {
  const degrees = Math.abs(phase - 0.5) * 360;
  return 10 ** (-0.4 * (0.026 * degrees + 4e-9 * degrees ** 4));
}

/** Share of the disc that is lit. */
export const litShare = (phase: number): number => (1 - Math.cos(2 * Math.PI * phase)) / 2;

/** How bright the moon's ground is at a place of its near side, unit vector, against its bright land. */
export type MoonGround = (x: number, y: number, z: number) => number;

/** Its seas, rays and craters: the same for everyone. */
export function createMoonGround(): MoonGround {
  const noise = createNoise3D(seeded(SEED));
  const fractal = (x: number, y: number, z: number) =>
    0.5 * noise(x, y, z) + 0.25 * noise(2 * x, 2 * y, 2 * z) + 0.13 * noise(4.1 * x, 4.1 * y, 4.1 * z);
  return (x, y, z) => {
    const seas = smoothStep(-0.02, 0.3, fractal(1.5 * x + 3, 1.5 * y, 1.5 * z) + 0.12 * y - 0.06 * x);
    const craters = 0.1 * fractal(7 * x, 7 * y, 7 * z + 5) + 0.05 * noise(26 * x, 26 * y, 26 * z);
    return clamp(1 - (1 - SEAS) * seas + craters, 0.2, 1.15);
  };
}

/**
 * The moon's disc: brightness toward a direction against its bright land when full, 0 beside it.
 *
 * @param moon unit vector toward its middle
 * @param pixel half the angle of a pixel, radians: the limb is no sharper
 */
export function createMoonDisc(
  moon: Vec3,
  { phase, size, tilt }: MoonLook,
  pixel: number,
  ground: MoonGround,
) {
  const { side, up } = besideDirection(moon);
  const [cos, sin] = [Math.cos((tilt * Math.PI) / 180), Math.sin((tilt * Math.PI) / 180)];
  const radius = MOON_RADIUS * size;
  const edge = Math.max(LIMB, pixel / radius);
  // The sun lights it from the right while it waxes: along `side` at the first quarter, from behind the eye when full.
  const turn = 2 * Math.PI * phase;
  const sun: Vec3 = [Math.sin(turn), 0, -Math.cos(turn)];

  return (toward: Vec3): number => {
    const ahead = dot(toward, moon);
    if (ahead <= 0) return 0;
    const [aside, above] = [dot(toward, side) / ahead / radius, dot(toward, up) / ahead / radius];
    const x = cos * aside - sin * above;
    const y = sin * aside + cos * above;
    const far = hypot(x, y);
    const cover = 1 - smoothStep(1 - edge, 1 + edge, far);
    if (cover === 0) return 0;
    const z = Math.sqrt(Math.max(0, 1 - far * far));
    const facing = x * sun[0] + z * sun[2];
    const lit = smoothStep(-TERMINATOR / 4, TERMINATOR, facing) * (0.55 + 0.45 * Math.max(0, facing));
    return cover * ground(x, y, z) * Math.max(lit, EARTHSHINE);
  };
}

/** How much of the light that comes from one direction is sent on into another by haze or thin cloud, per steradian (Henyey and Greenstein 1941). */
export function forwardScatter(cosine: number, g: number): number {
  const base = 1 + g * g - 2 * g * cosine;
  return (1 - g * g) / (4 * Math.PI * base * Math.sqrt(base));
}
