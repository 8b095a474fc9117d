/** Luminance of the plate at which half of the hold has set in. */
export const HOLD_MIDDLE = 0.35;

/**
 * What is left of ambient light on a place of the plate: all of it on dark ones, `1 - hold` of it on the brightest, with a
 * soft transition. White walls, pale sky and sunlit patches sink, so that they do not give the day away.
 */
export function highlightHold(plateLuminance: number, hold: number): number {
  const l2 = plateLuminance * plateLuminance;
  return 1 - (hold * l2) / (l2 + HOLD_MIDDLE * HOLD_MIDDLE);
}
