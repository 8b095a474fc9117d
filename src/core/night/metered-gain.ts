import { MIDDLE_GREY } from '../color/middle-grey';
import type { Night } from './night-schema';

/** Stops by which metering lifts or lowers a plate at most. */
const MOST_STOPS = 5;

/**
 * What the plate is multiplied by so that its land stands for middle grey, as far as the night is metered. A plate that was exposed
 * wrongly, or under a dull sky, comes out as any other.
 *
 * @param medianLuminance median linear luminance of the plate's land
 */
export function meteredGain({ meter }: Pick<Night, 'meter'>, medianLuminance: number): number {
  const stops = Math.log2(MIDDLE_GREY / medianLuminance);
  return 2 ** (meter * Math.min(MOST_STOPS, Math.max(-MOST_STOPS, stops)));
}
