import { clamp } from '../plane/clamp';

/** Lightness of a plate's brightest twentieth in a well exposed picture of the day, and by how much a dark plate is lifted at least and most. */
const BRIGHT = { share: 0.95, lightness: 0.87, least: 1.1, most: 2.2 } as const;

/**
 * How yellow, of its lightness, the least yellow tenth of the lighter half of the land before the eye is under a white balance for daylight:
 * plaster, paving and asphalt are nearly grey. What is less warm or cold than that says nothing; no cast is more.
 */
const CAST = { share: 0.1, plain: 0.03, warm: 0.022, cold: 0.04, most: 0.12 } as const;

/** Colours of a plate that are all within so much of one another, of their lightness, are tones of one. */
const ONE_HUE = { share: 0.03, within: 0.01 } as const;

/** What makes a plate look as one of a plain day does, in Oklab. */
export interface DayBalance {
  /** Times all that it is. */
  lift: number;
  /** What is taken from its colours, for each lightness: toward green, toward blue. */
  cast: { a: number; b: number };
  /** Whether it is in tones of one hue, as one in black and white is. */
  oneHue: boolean;
}

const quantile = (sorted: Float32Array, share: number) =>
  sorted[clamp(Math.floor(share * sorted.length), 0, sorted.length - 1)];

/**
 * How many times as light a picture is in one of a plain day, by the lightness of its pixels (the cube root of luminance): 1 where it is
 * nearly so, else more.
 */
export function liftFrom(lightness: Float32Array): number {
  const bright = quantile(lightness.slice().sort(), BRIGHT.share);
  const lift = BRIGHT.lightness / Math.max(bright, 1e-3);
  return lift < BRIGHT.least ? 1 : Math.min(lift, BRIGHT.most);
}

/** The middle of values that are nearly one; undefined where they are many. */
function oneValue(values: Float32Array): number | undefined {
  const sorted = values.slice().sort();
  const [least, most] = [quantile(sorted, ONE_HUE.share), quantile(sorted, 1 - ONE_HUE.share)];
  return most - least < ONE_HUE.within ? quantile(sorted, 0.5) : undefined;
}

/** How yellow the land before the eye is beyond what daylight makes it: 0 where it may be so by itself. */
function castOf(lightness: Float32Array, yellow: Float32Array): number {
  const near = lightness.length >> 1;
  const middle = quantile(lightness.slice(near).sort(), 0.5);
  const light = yellow.slice(near).filter((_, i) => lightness[near + i] >= middle);
  const beyond = quantile(light.sort(), CAST.share) - CAST.plain;
  return beyond > -CAST.cold && beyond < CAST.warm ? 0 : clamp(beyond, -CAST.most, CAST.most);
}

/**
 * How a plate departs from one of a plain day: darker than it may be exposed, in a light of another colour, or in tones of one hue.
 *
 * @param lightness,a,b Oklab, row by row
 */
export function dayBalance(lightness: Float32Array, a: Float32Array, b: Float32Array): DayBalance {
  const lift = liftFrom(lightness);
  const relative = (plane: Float32Array) => plane.map((value, i) => value / Math.max(lightness[i], 0.05));
  const [red, yellow] = [relative(a), relative(b)];
  const [oneRed, oneYellow] = [oneValue(red), oneValue(yellow)];
  if (oneRed !== undefined && oneYellow !== undefined)
    return { lift, cast: { a: oneRed, b: oneYellow }, oneHue: true };
  return { lift, cast: { a: 0, b: castOf(lightness, yellow) }, oneHue: false };
}
