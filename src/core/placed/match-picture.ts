import { LUMINANCE } from '../color/luminance';
import { gelColor } from '../fixture/gel-color';
import type { RgbPlanes } from '../plane/plane';
import type { Placed } from './placed-schema';

/** Darkest and lightest of a picture, scene-linear, each channel's own. */
export interface TonalEnds {
  black: [number, number, number];
  white: [number, number, number];
}

/** Shares of a picture's pixels below its black and below its white. */
const BLACK = 0.01;
const WHITE = 0.98;

/** About as many pixels of a picture are looked at. */
const LOOKED_AT = 40_000;

/** What is there of a pixel from which on it counts. */
const THERE = 0.5;

/**
 * The ends of a picture's tones.
 *
 * @param coverage of what counts of it; without it all does
 * @returns undefined where nothing counts
 */
export function tonalEnds(picture: RgbPlanes, coverage?: Float32Array): TonalEnds | undefined {
  const stride = Math.max(1, Math.floor(picture.r.length / LOOKED_AT));
  const counted: number[] = [];
  for (let i = 0; i < picture.r.length; i += stride) {
    if (!coverage || coverage[i] > THERE) counted.push(i);
  }
  if (counted.length === 0) return undefined;
  const ends = [picture.r, picture.g, picture.b].map((plane) => {
    const sorted = Float32Array.from(counted, (i) => plane[i]).sort();
    const at = (share: number) => sorted[Math.min(sorted.length - 1, Math.floor(share * sorted.length))];
    return [at(BLACK), at(WHITE)] as const;
  });
  const all = (k: 0 | 1) => ends.map((channel) => channel[k]) as [number, number, number];
  return { black: all(0), white: all(1) };
}

/** A placed picture's light, channel by channel: less its own black, times a gain, over the plate's. */
export interface Matching {
  black: readonly number[];
  gain: readonly number[];
  lift: readonly number[];
}

/** Farthest that a match brightens or darkens, as a factor. */
const FARTHEST = 6;

/** A white below this is no white: the picture shows something dark, and stays as dark. */
const LEAST_WHITE = 0.4;

type ByHand = Pick<Placed, 'match' | 'exposure' | 'black' | 'warmth'>;

/**
 * How a picture becomes the plate's: its darkest and lightest go onto the plate's, as far as that is wanted, and the hand's own settings
 * on top.
 *
 * @param cutOut whether only what stands is known of the picture; then its colours are its own and not those of its light
 */
export function matchPicture(
  plate: TonalEnds,
  own: TonalEnds,
  cutOut: boolean,
  { match, exposure, black, warmth }: ByHand,
): Matching {
  const grey = (ends: readonly number[]) => ends.reduce((sum, value, c) => sum + LUMINANCE[c] * value, 0);
  const lightest = Math.max(LEAST_WHITE, grey(own.white));
  const whites = cutOut || grey(own.white) < LEAST_WHITE ? [lightest, lightest, lightest] : own.white;
  const blacks = cutOut ? [0, 0, 0] : own.black;
  const tint = gelColor({ from: 'picture', kelvin: 0, color: [1, 1, 1] }, warmth);
  const gain = whites.map((white, c) => {
    const wanted = Math.max(1e-4, plate.white[c] - plate.black[c]) / Math.max(1e-4, white - blacks[c]);
    const held = Math.min(FARTHEST, Math.max(1 / FARTHEST, wanted));
    return held ** match * 2 ** exposure * tint[c];
  });
  return {
    black: blacks.map((value) => match * value),
    gain,
    lift: plate.black.map((value, c) => (cutOut ? 0 : match * value) + black * tint[c]),
  };
}

/** A channel of a picture's light as the plate would have it. */
export const matched = ({ black, gain, lift }: Matching, c: number, value: number): number =>
  Math.max(0, gain[c] * (value - black[c]) + lift[c]);
