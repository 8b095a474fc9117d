import type { LensSettings } from './lens-schema';

/** What spikes of a lens look like. Lengths are fractions of the picture's width. */
export interface SpikeLook {
  number: number;
  /** Direction of the first, degrees from level, clockwise. */
  turn: number;
  reach: number;
  thickness: number;
  crisp: number;
  heart: number;
}

/** An aperture of straight blades reaches so far, and its spikes are so thick; round ones spread the same light about. */
const APERTURE = { reach: 0.12, thickness: 0.0006, broader: 0.0022, shorter: 0.75 } as const;

/**
 * Spikes as the aperture of a lens draws them. Each straight edge sends light to both of its sides at right angles: of an even number of
 * blades two edges share each spike, of an odd number each has two of its own (Born and Wolf 1999, 8.5).
 */
export function spikesOf({ from, blades, roundness, ...hand }: LensSettings): SpikeLook {
  const { turn, number, reach, thickness, crisp, heart } = hand;
  if (from === 'hand') return { number, turn, reach, thickness, crisp, heart };
  return {
    ...{ turn, heart },
    number: blades % 2 === 0 ? blades : 2 * blades,
    reach: APERTURE.reach * (1 - APERTURE.shorter * roundness),
    thickness: APERTURE.thickness + APERTURE.broader * roundness * roundness,
    crisp: 1 - 0.6 * roundness,
  };
}

/** Wave lengths of the three channels against the middle one: red reaches farther. */
export const WAVES = [1.13, 1, 0.86] as const;

/** Where a spike's light begins to fall off, in its thickness. */
const ROOT = 4;
/** How narrow a spike is at its end, against its root; how quickly one that is not crisp widens. */
const TIP = 0.4;
const WIDENS = 0.16;

/** The spread of one spike's light: shares of it a length along it, and how broad it is there. Both by the distance from its source. */
export interface SpikeSpread {
  reach: number;
  /** Share per length at a distance below `reach`. */
  along: (distance: number) => number;
  /** Standard deviation across. */
  breadth: (distance: number) => number;
}

/** Light falls off along a spike with the square of the distance, and ends softly. Its integral over the length is 1. */
export function spikeSpread({ reach, thickness, crisp }: SpikeLook): SpikeSpread {
  const root = ROOT * thickness;
  const shape = (distance: number) => {
    const left = 1 - distance / reach;
    return left > 0 ? (left * left) / (distance + root) ** 2 : 0;
  };
  // The integral of (1 - x / reach)^2 / (x + root)^2 over the reach.
  const end = reach + root;
  const whole = (end * end * (1 / root - 1 / end) - 2 * end * Math.log(end / root) + reach) / (reach * reach);
  const widens = WIDENS * (1 - crisp) ** 2;
  return {
    reach,
    along: (distance) => shape(distance) / whole,
    breadth: (distance) => thickness * (1 - (1 - TIP) * Math.min(1, distance / reach)) + widens * distance,
  };
}
