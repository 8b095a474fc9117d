import { LUMINANCE } from '../color/luminance';
import { createBoxBlur } from '../plane/box-blur';
import { leafyRim } from './leafy-rim';
import { createFiller } from '../plane/pull-push';
import type { RgbPlanes } from '../plane/plane';

/**
 * What the small copy of a plate says about both sides of its skyline, each side carried on beyond it: the colours that the day's sky
 * and the land would have there, how surely a place lies within either, and the sky's broad brightness.
 */
export interface SkyTones {
  skyR: Float32Array;
  skyG: Float32Array;
  skyB: Float32Array;
  landR: Float32Array;
  landG: Float32Array;
  landB: Float32Array;
  /** 1: within the sky, away from the skyline; 0: not. */
  withinSky: Float32Array;
  withinLand: Float32Array;
  /** How much sky lies around, 0 to 1: leaves through which it shows are full of it. */
  nearSky: Float32Array;
  /** Luminance of the sky without its clouds, and the least that its clouds come down to. */
  broad: Float32Array;
  floor: Float32Array;
  /** How even the sky close by is: the least that it comes down to over its mean, 1 where it is all alike. */
  even: Float32Array;
  /** Coverage by leaves and what sky is seen between them, 0 to 1: what is light and blue there is sky. */
  leaves: Float32Array;
  /** Row on which land stands, fraction of the height. */
  feet: Float32Array;
}

/** Those that a skyline is read from. */
export const SKY_TONES = [
  ...(['skyR', 'skyG', 'skyB', 'landR', 'landG', 'landB'] as const),
  ...(['withinSky', 'withinLand', 'nearSky', 'floor', 'even', 'leaves'] as const),
] as const;

/** From which share on a place counts as surely sky, or leaves, and up to which as surely land. */
const SURE = { sky: 0.85, land: 0.15, leaves: 0.5 } as const;

/** Lengths as fractions of the width: how far from the skyline a place is sure; the windows of means; how far sky shows through. */
const REACH = {
  edge: 0.005,
  near: 0.012,
  next: 0.04,
  through: 0.05,
  broad: 0.1,
} as const;

/** Clouds vary by so many standard deviations of the sky around. */
const VARIES = 2.5;

/** Share of a window that has to be known before its mean counts fully. */
const ENOUGH = 0.04;

const pixels = (fraction: number, width: number) => Math.max(1, Math.round(fraction * width));

/** The least of a plane within some pixels: what is left of a mask away from its edge. */
function eroded(mask: Float32Array, width: number, height: number, radius: number): Float32Array {
  const mean = new Float32Array(mask.length);
  createBoxBlur(width, height, radius)(mean, mask);
  return mean.map((share) => (share > 1 - 1e-4 ? 1 : 0));
}

/** Carries a plane on. */
type Carrier = (plane: Float32Array) => Float32Array;

/** Prepares what carries planes on over where they are not known: means of a window of known places, and smoothly on from there. */
function createCarrier(known: Float32Array, width: number, height: number, reach: number): Carrier {
  const blur = createBoxBlur(width, height, pixels(reach, width));
  const around = new Float32Array(known.length);
  blur(around, known);
  const fill = createFiller(
    around.map((share) => Math.min(1, share / ENOUGH)),
    width,
    height,
  );
  return (plane) => {
    const value = new Float32Array(plane.length);
    for (let i = 0; i < value.length; i++) value[i] = plane[i] * known[i];
    blur(value, value);
    for (let i = 0; i < value.length; i++) value[i] = around[i] > 1e-6 ? value[i] / around[i] : 0;
    fill(value);
    return value;
  };
}

/** What carries the land's tones on: among leaves the lighter half is full of sky, and says little of what they look like. */
const createLandCarrier =
  (onLand: Carrier, onLeaves: Carrier, rim: Float32Array): Carrier =>
  (plane) => {
    const leaf = onLeaves(plane);
    return onLand(plane).map((value, i) => value + rim[i] * (Math.min(value, leaf[i]) - value));
  };

/**
 * Looks at both sides of the skyline.
 *
 * @param plate the small copy
 * @param sky coverage by sky as the survey found it
 * @param feet row on which what is seen stands, fraction of the height
 * @param leaves coverage by leaves, 0 to 1
 */
export function skyTones(
  plate: RgbPlanes,
  sky: Float32Array,
  feet: Float32Array,
  leaves: Float32Array,
): SkyTones {
  const { width, height } = plate;
  // A pixel more than it is softened by: the survey's own edge may lie beside the true one.
  const edge = pixels(REACH.edge, width) + 1;
  const within = (is: (share: number) => boolean) =>
    eroded(
      sky.map((share) => (is(share) ? 1 : 0)),
      width,
      height,
      edge,
    );
  const sureSky = within((share) => share > SURE.sky);
  const sureLand = within((share) => share < SURE.land);
  const soft = (mask: Float32Array, reach: number) => {
    const out = new Float32Array(mask.length);
    createBoxBlur(width, height, pixels(reach, width))(out, mask);
    return out;
  };
  const onSky = createCarrier(sureSky, width, height, REACH.near);
  const onLand = createCarrier(sureLand, width, height, REACH.near);
  const widely = createCarrier(sureSky, width, height, REACH.next);
  const light = plate.r.map(
    (r, i) => LUMINANCE[0] * r + LUMINANCE[1] * plate.g[i] + LUMINANCE[2] * plate.b[i],
  );
  const square = light.map((value) => value * value);
  const least = (carry: Carrier) => {
    const [mean, squares] = [light, square].map(carry);
    const floor = mean.map((value, i) =>
      Math.max(0, value - VARIES * Math.sqrt(Math.max(0, squares[i] - value * value))),
    );
    return { mean, floor };
  };
  const rim = leafyRim({ width, height, data: light }, leaves);
  const mean = soft(light, REACH.near);
  const ofLeaves = leaves.map((share, i) =>
    sureLand[i] === 1 && share > SURE.leaves && light[i] < mean[i] ? 1 : 0,
  );
  const landAs = createLandCarrier(onLand, createCarrier(ofLeaves, width, height, REACH.near), rim);
  const close = least(onSky);
  const blur = createBoxBlur(width, height, pixels(REACH.broad, width));
  const broad = close.mean.slice();
  blur(broad, broad);
  blur(broad, broad);
  return {
    ...{ skyR: onSky(plate.r), skyG: onSky(plate.g), skyB: onSky(plate.b) },
    ...{ landR: landAs(plate.r), landG: landAs(plate.g), landB: landAs(plate.b) },
    withinSky: soft(sureSky, REACH.edge),
    withinLand: soft(sureLand, REACH.edge),
    nearSky: soft(sureSky, REACH.through),
    ...{ broad, leaves: rim },
    floor: least(widely).floor,
    even: close.floor.map((value, i) => value / Math.max(1e-4, close.mean[i])),
    feet: onLand(feet).map((row, i) => (sureLand[i] === 1 ? feet[i] : row)),
  };
}
